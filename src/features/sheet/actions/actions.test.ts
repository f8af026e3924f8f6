import 'fake-indexeddb/auto';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { movePart, partIn, standOf } from '@/core/drawing/grow/change';
import { isPart, isPort } from '@/core/drawing/drawing';
import { DRIVER } from '@/core/library/testing';
import { cellOf } from '@/core/cells';
import { movedParts } from '@/core/sheet/controls';
import { makeStage } from '@/core/sheet/make';
import { voiceSheet } from '@/core/sheet/voice';
import type { Sheet, Way } from '@/core/sheet/schema';
import {
  designedAs,
  drawingOf,
  drawnParts,
  heardOf,
  outputsOf,
  valuesOf,
} from '@/core/sheet/stage';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { redo, undo } from '@/store/sheet-session';
import { AT, closeNow, LOW_PASS, newSheet, openNow, present, stages } from '@/testing/open-sheet';
import { changeAsk, changeTopologies, setTitle, takeAsk } from './ask';
import { addControl, removeControl, setControl } from './controls';
import { setLoad, setSource } from './ends';
import { goBackTo, keepNow, removeKeep, showKeep } from './keeps';
import { changeParts, fitAgain, resetValue, setModel, setValue } from './parts';
import { addReading, changeReading, removeReading } from './readings';
import { addStage, duplicateStage, moveStage, removeStage, setHeard, toggleBypass } from './stages';
import { changeStart, retargetStage } from './targets';
import { graftStage, redraw, ungraft } from './wiring';

beforeEach(() => openNow());
afterEach(closeNow);

/** A topology with several outputs. */
const SEVERAL = TOPOLOGIES.find(
  (t) =>
    t.limits.q &&
    !t.limits.boost &&
    t.drawing.symbols.filter((s) => isPort(s) && s.flow === 'out').length > 1,
)!;

const ids = () => stages().map((s) => s.id);
/** What it does is one step of history; how it is looked at is none. */
function oneStep(act: () => void): void {
  const before = present();
  act();
  const after = present();
  expect(after).not.toEqual(before);
  undo();
  expect(present()).toEqual({ ...before, view: after.view });
  redo();
  expect(present()).toEqual(after);
}
/** It is refused in words, and the sheet is the very same as before. */
function refused(act: () => void, words: RegExp): void {
  const before = present();
  expect(act).toThrow(words);
  expect(present()).toEqual(before);
}

describe('the ask', () => {
  test('another edge: stages, readings and what is shown follow in one step', () => {
    oneStep(() => changeAsk({ edgeHz: 340 }));
    const { ask, readings, view } = present();
    expect(ask.edgeHz).toBe(340);
    expect(stages().every((s) => Math.abs(s.target!.f0Hz - 340) < 1)).toBe(true);
    expect(readings.find((r) => r.measure.measure === 'edge')?.wanted).toMatchObject({
      value: 340,
    });
    expect([view.fromHz, view.toHz]).toEqual([5, 50_000]);
  });

  test('another order keeps the ids of the stages that stay', () => {
    const before = ids();
    changeAsk({ order: 6 });
    expect(ids().slice(0, 2)).toEqual(before);
    expect(ids()).toHaveLength(3);
    changeAsk({ order: 2 });
    expect(ids()).toEqual(before.slice(0, 1));
  });

  test('stages put in by hand stay where they are', () => {
    const id = addStage(topologyOf('twin-t-notch'), 's2');
    changeAsk({ edgeHz: 1000 });
    expect(ids()).toEqual(['s1', 's2', id]);
    expect(stages()[2].target!.f0Hz).toBe(3400);
  });

  test.each([
    [{ edgeHz: 2e9 }, /edge must be at most/],
    [{ edgeHz: -5 }, /edge must be at least/],
    [{ gainDb: NaN }, /gain/],
    [{ order: 400 }, /order/],
  ])('%p is refused where it is typed', (change, words) => refused(() => changeAsk(change), words));

  test('other topologies let a gain go that they cannot have', () => {
    changeAsk({ gainDb: 6 });
    changeTopologies(topologyOf('unity-low-pass'));
    expect(present().ask).toMatchObject({ topology: 'unity-low-pass', gainDb: 0 });
    expect(stages().every((s) => s.topology === 'unity-low-pass')).toBe(true);
  });

  test('a weighed design is taken over whole, without fields that are nothing', () => {
    oneStep(() => takeAsk({ ...LOW_PASS, order: 2, gainDb: undefined }));
    expect(present().ask).toEqual({ ...LOW_PASS, order: 2, gainDb: undefined });
    expect('gainDb' in present().ask).toBe(false);
    expect(ids()).toHaveLength(1);
  });

  test('a name is trimmed and cut; none at all is refused', () => {
    setTitle(`  Hum ${'x'.repeat(200)} `);
    expect(present().title).toHaveLength(120);
    refused(() => setTitle('\u200b '), /needs a name/);
  });
});

describe('values', () => {
  test('a value by hand stays; a drag undoes in one step', () => {
    const [{ id }] = stages();
    const before = present();
    for (const ohms of [1000, 1100, 1200]) setValue(id, 'R1', ohms, 'try R1');
    expect(stages()[0].parts.R1).toMatchObject({ value: 1200, chosen: 'hand' });
    undo();
    expect(present()).toEqual(before);
  });

  test.each([0, -1, NaN])('%p is no value', (value) =>
    refused(() => setValue('s1', 'R1', value), /must be greater than zero/),
  );

  test('back to the exact value, and to the nearest real one', () => {
    const real = valuesOf(stages()[0]).R1;
    setValue('s1', 'R1', 12);
    resetValue('s1', 'R1', 'exact');
    const exact = valuesOf(stages()[0]).R1;
    expect(Math.abs(Math.log(exact / real))).toBeLessThan(0.06);
    resetValue('s1', 'R1', 'nearest');
    expect(valuesOf(stages()[0]).R1).toBe(real);
  });

  test('another series chooses every value again, another op-amp none', () => {
    const before = valuesOf(stages()[0]);
    changeParts({ opAmp: OP_AMPS[1] });
    expect(valuesOf(stages()[0])).toBe(before);
    oneStep(() => changeParts({ resistors: 'exact', capacitors: 'exact' }));
    expect(valuesOf(stages()[0])).not.toEqual(before);
    setValue('s1', 'R1', 5);
    fitAgain();
    expect(valuesOf(stages()[0]).R1).toBeGreaterThan(100);
  });

  test('a model is one part’s own, and can be let go', () => {
    const [op] = drawnParts(stages()[0]).filter((p) => p.kind === 'op-amp');
    oneStep(() => setModel('s1', op.id, OP_AMPS[2]));
    expect(stages()[0].parts[op.id].model).toEqual(OP_AMPS[2]);
    setModel('s1', op.id, undefined);
    expect(stages()[0].parts[op.id].model).toBeUndefined();
  });

  test('other figures make a stage follow the ask no longer, whatever is wired otherwise', () => {
    toggleBypass('s1');
    retargetStage('s1', { f0Hz: 1000, q: 2 });
    expect(stages()[0]).toMatchObject({
      origin: 'hand',
      bypassed: true,
      target: { f0Hz: 1000, q: 2 },
    });
    const { R1 } = valuesOf(stages()[0]);
    changeStart('s1', { farads: 1e-9 });
    expect(valuesOf(stages()[0]).R1).toBeGreaterThan(R1);
    refused(() => changeStart('s1', { farads: 1000 }), /must be at most/);
  });
});

describe('stages', () => {
  test('added where asked for, doubled beside themselves, moved, bypassed, removed', () => {
    const notch = topologyOf('twin-t-notch');
    oneStep(() => addStage(notch, null));
    expect(stages()[0].topology).toBe('twin-t-notch');
    const [first] = ids();
    oneStep(() => duplicateStage(first));
    expect(stages()[1]).toMatchObject({ topology: 'twin-t-notch', origin: 'hand' });
    expect(new Set(ids()).size).toBe(4);
    oneStep(() => moveStage(first, 3));
    expect(ids()[3]).toBe(first);
    oneStep(() => toggleBypass(first));
    expect(stages()[3].bypassed).toBe(true);
    oneStep(() => removeStage(first));
    expect(ids()).not.toContain(first);
  });

  test('controls follow a cell: its copy moves with it, and what moves nothing goes', () => {
    const cell = cellOf('ota-cascade')!;
    const ends = { source: { name: 'a', ohms: 1e3, volts: 1 }, load: { name: 'b', ohms: 1e5 } };
    openNow(voiceSheet({ id: 'v', title: 'V', at: AT, cell, ...cell.usual, ...ends }));
    const before = present().controls;
    oneStep(() => duplicateStage('s1'));
    const [, copy] = ids();
    present().controls.forEach(({ moves }, k) => {
      expect(moves).toHaveLength(2 * before[k].moves.length);
      expect(moves.filter((m) => m.stage === copy)).toHaveLength(before[k].moves.length);
    });
    oneStep(() => removeStage(copy));
    expect(present().controls).toEqual(before);

    // A value that a control moves is set by where the control stands.
    const [{ id, moves }] = before;
    const { part, quantity, from, to } = moves[0];
    const wanted = Math.sqrt(from * to);
    oneStep(() => setValue('s1', part, wanted));
    const { at } = present().controls.find((c) => c.id === id)!;
    const set = movedParts(present(), present().ways[0], stages()[0]).get(part)!;
    expect(set[quantity] / wanted).toBeCloseTo(1, 6);
    expect(at).toBeGreaterThan(0);
    refused(() => setValue('s1', part, 1000 * to), /moves .*, from .* to .*, and never to/);
    oneStep(() => removeStage('s1'));
    expect(present().controls).toEqual([]);
  });

  test.each([-1, 2, 99])('to place %d nothing is moved', (to) => {
    const before = ids();
    moveStage('s1', to);
    expect(ids()).toEqual(before);
  });

  test('a path holds at most forty', () => {
    for (let n = stages().length; n < 40; n++) duplicateStage('s1');
    refused(() => duplicateStage('s1'), /at most 40 stages/);
  });

  test('another output is passed on, and the main one by having none', () => {
    const made = makeStage('s1', SEVERAL, { f0Hz: 1000, q: 1 }, present().parts, 'hand');
    openNow(newSheet(LOW_PASS, { ways: [{ ...present().ways[0], stages: [made] }] }));
    const [main, other] = outputsOf(made);
    setHeard('s1', other.name);
    expect(heardOf(stages()[0]).name).toBe(other.name);
    setHeard('s1', main.name);
    expect(stages()[0].heard).toBeUndefined();
  });
});

describe('wiring', () => {
  const across = { do: 'across', part: 'R2', new: { kind: 'capacitor', value: 1e-9 } } as const;

  test('a part is put in, and the stage can be as designed again', () => {
    const [before] = stages();
    oneStep(() => graftStage('s1', across));
    const [grafted] = stages();
    expect(drawnParts(grafted)).toHaveLength(drawnParts(before).length + 1);
    expect(grafted).toMatchObject({ origin: 'hand', topology: before.topology });
    ungraft('s1');
    expect(stages()[0].drawing).toBeUndefined();
    expect(Object.keys(valuesOf(stages()[0])).sort()).toEqual(Object.keys(valuesOf(before)).sort());
    expect(valuesOf(stages()[0])).toEqual(valuesOf(before));
  });

  test('it is told from which net the next part goes on', () => {
    const net = graftStage(
      's1',
      {
        do: 'put',
        ends: { a: { part: 'R2', pin: 'a' }, b: 'open' },
        new: { kind: 'resistor', id: 'R9' },
      },
      { part: 'R9', pin: 'b' },
    );
    expect(drawnParts(stages()[0]).find((p) => p.id === 'R9')!.nets.b).toBe(net);
  });

  test('what is not there is refused', () => {
    refused(() => graftStage('s1', { ...across, part: 'R77' }), /R77/);
    refused(
      () => graftStage('s1', { ...across, new: { kind: 'capacitor', value: 1e9 } }),
      /at most/,
    );
  });

  test('a part is moved on the grid, the circuit stays', () => {
    graftStage('s1', across);
    const nets = () =>
      drawnParts(stages()[0])
        .map(({ id, kind }) => `${id} ${kind}`)
        .sort();
    const before = nets();
    const at = (id: string) =>
      drawingOf(stages()[0])
        .symbols.filter(isPart)
        .find((s) => s.id === id)!.at;
    const from = at('R1');
    const moved = [
      [-4, 0],
      [0, -6],
      [-4, -4],
      [0, 8],
    ].some(([dx, dy]) => {
      try {
        redraw('s1', (d) => movePart(d, 'R1', standOf(partIn(d, 'R1'), { by: [dx, dy] })));
        return true;
      } catch {
        return false;
      }
    });
    expect(moved).toBe(true);
    expect(at('R1')).not.toEqual(from);
    expect(nets()).toEqual(before);
    expect(designedAs(stages()[0])).toBeDefined();
  });

  test('only a potentiometer has a shaft; turning it is one step a second, letting it go another', () => {
    refused(() => addControl('s1', 'R1', 'Cut'), /Only a potentiometer/);
    graftStage('s1', { do: 'across', part: 'R1', new: { kind: 'potentiometer', id: 'P1' } });
    oneStep(() => addControl('s1', 'P1', 'Cut'));
    const [{ id, at }] = present().controls;
    expect(at).toBe(0.5);
    for (const turn of [0.1, 0.2, 0.3]) setControl(id, turn);
    expect(present().controls[0].at).toBe(0.3);
    undo();
    expect(present().controls[0].at).toBe(0.5);
    refused(() => setControl(id, 1.5), /at most 1/);
    removeControl(id);
    expect(present().controls).toEqual([]);
  });
});

describe('ends', () => {
  test('source and load change field by field; an emptied load is none', () => {
    setSource({ ohms: 600 });
    setSource({ volts: 2 });
    expect(present().source).toMatchObject({ ohms: 600, volts: 2 });
    setLoad({ ohms: 47_000 });
    setLoad({ farads: 1e-9 });
    setLoad({ ohms: null });
    expect(present().ways[0].to).toMatchObject({ is: 'load', ohms: null, farads: 1e-9 });
  });

  test.each([
    [() => setSource({ ohms: -1 }), /cannot be negative/],
    [() => setSource({ volts: 0 }), /greater than zero/],
    [() => setLoad({ ohms: 0 }), /empty the field for none/],
    [() => setLoad({ farads: -1e-9 }), /greater than zero/],
    [() => setLoad({ ohms: 1e12 }), /at most/],
  ])('%p is refused', refused);

  test('of a loudspeaker only the name here is changed', () => {
    const to: Way['to'] = { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false };
    openNow(newSheet(LOW_PASS, { ways: [{ ...present().ways[0], to }] }));
    setLoad({ name: 'Left woofer', ohms: 8 });
    expect(present().ways[0].to).toEqual({ ...to, name: 'Left woofer' });
  });
});

describe('readings and keeps', () => {
  test('a reading is pinned, judged and let go', () => {
    const before = present().readings.length;
    addReading({ measure: { measure: 'level', atHz: 1000 } });
    const added = present().readings[before];
    changeReading(added.id, { name: 'At one', wanted: { is: 'at-least', value: -1 } });
    expect(present().readings[before]).toMatchObject({ name: 'At one' });
    refused(() => changeReading(added.id, { wanted: { is: 'at-least', value: 1e20 } }), /at most/);
    removeReading(added.id);
    expect(present().readings).toHaveLength(before);
  });

  test('a keep holds the design, not its history; going back is a step that can be undone', () => {
    keepNow('  before  ');
    keepNow('');
    expect(present().keeps.map((k) => k.name)).toEqual(['before', 'Keep 2']);
    const kept: Sheet = present();
    changeAsk({ edgeHz: 100 });
    setTitle('Renamed');
    goBackTo(kept.keeps[0].id);
    expect(present()).toMatchObject({ ask: kept.ask, ways: kept.ways, title: 'Renamed' });
    expect(present().keeps).toHaveLength(2);
    undo();
    expect(present().ask.edgeHz).toBe(100);
    showKeep(kept.keeps[0].id, false);
    expect(present().keeps[0].shown).toBe(false);
    removeKeep(kept.keeps[0].id);
    expect(present().keeps.map((k) => k.name)).toEqual(['Keep 2']);
    goBackTo('gone');
    expect(present().ask.edgeHz).toBe(100);
  });
});

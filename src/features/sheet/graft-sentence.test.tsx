/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { partNames } from '@/core/sheet/path-circuit';
import type { Stage } from '@/core/sheet/schema';
import { drawingOf, drawnParts, outputsOf, portsOf, valuesOf } from '@/core/sheet/stage';
import { useSheet } from '@/store/sheet-session';
import { closeNow, LOW_PASS, newSheet, openNow, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { Controls } from './controls';
import { GraftArea } from './graft-area';
import { resetUi, setUi, useUi, type Grafting } from './ui-state';

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);

/** What changes a circuit, as the panel has it under the drawing of the first stage. */
function Area() {
  const sheet = useSheet()!;
  const partId = useUi((s) => s.partId);
  const grafting = useUi((s) => s.grafting);
  const [stage] = sheet.ways[0].stages;
  return (
    <>
      <GraftArea
        stage={stage}
        part={partId}
        names={partNames(sheet.ways[0].stages).get(stage.id)!}
        grafting={grafting}
        controls={sheet.controls}
      />
      <Controls sheet={sheet} />
    </>
  );
}
function shown(grafting: Grafting | null, part: string | null = grafting?.part ?? null) {
  setUi({ grafting, partId: part });
  render(<Area />);
}
const parts = () => drawnParts(stages()[0]);
const part = (id: string) => parts().find((p) => p.id === id)!;
const type = async (role: 'combobox' | 'textbox', name: string, text: string) => {
  const field = screen.getByRole(role, { name });
  act(() => field.focus());
  await user.keyboard(text);
  await user.tab();
};
const enter = () => user.keyboard('{Enter}');
const told = () => useTold.getState().waiting.map((t) => ('content' in t ? t.content : ''));

describe('a part beside another', () => {
  beforeEach(() => openNow());

  test('across: a capacitor of 1n, called as the next free one', async () => {
    const before = { ...part('R2').nets };
    shown({ do: 'across', part: 'R2' });
    expect(screen.getByRole('form', { name: 'Change the circuit' }).textContent).toMatch(
      /^Across R2 put a .* of .*, called/,
    );
    await type('combobox', 'Kind of part', 'cap');
    await user.type(screen.getByRole('textbox', { name: 'Value' }), '1n');
    await enter();
    const added = parts().find(
      (p) => p.kind === 'capacitor' && valuesOf(stages()[0])[p.id] === 1e-9,
    )!;
    expect(new Set(Object.values(added.nets))).toEqual(new Set([before.a, before.b]));
    expect(useUi.getState().grafting).toBeNull();
    // Who left by the keyboard goes on from what can be done next.
    expect(document.activeElement?.tagName).toBe('BUTTON');
  });

  test('in line: one end of the partner is on the new part', async () => {
    shown({ do: 'in-line', part: 'R1' });
    await type('textbox', 'Its name', 'R9');
    screen.getByRole('textbox', { name: 'Value' }).focus();
    await user.keyboard('2k2');
    await enter();
    expect(valuesOf(stages()[0]).R9).toBe(2200);
    const shared = Object.values(part('R9').nets).filter((n) =>
      Object.values(part('R1').nets).includes(n),
    );
    expect(shared).toHaveLength(1);
  });

  test('swapped for two light-emitting diodes’ worth of a diode', async () => {
    const before = { ...part('R1').nets };
    shown({ do: 'swap', part: 'R1' });
    await type('combobox', 'Kind of part', 'diode');
    expect(screen.queryByRole('textbox', { name: 'Value' })).toBeNull();
    await type('textbox', 'Its name', 'D1');
    screen.getByRole('textbox', { name: 'Its name' }).focus();
    await enter();
    expect(part('R1')).toBeUndefined();
    expect(Object.values(part('D1').nets).sort()).toEqual(Object.values(before).sort());
  });

  test.each([
    ['Value', '4x7', /4x7/],
    ['Value', '1e30', /at most/],
    ['Its name', 'R2', /R2/],
    ['Its name', 'no spaces please', /./],
  ])('%s “%s” is refused in the sentence, and the circuit stays', async (field, text, words) => {
    const before = stages()[0];
    shown({ do: 'across', part: 'R2' });
    await type('textbox', field, text);
    screen.getByRole('textbox', { name: field }).focus();
    await enter();
    expect(screen.getByRole('alert').textContent).toMatch(words);
    expect(stages()[0]).toBe(before);
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: field }).value).toBe(text);
  });

  test('Escape leaves, and so does the button', async () => {
    shown({ do: 'across', part: 'R2' });
    screen.getByRole('textbox', { name: 'Value' }).focus();
    await user.keyboard('{Escape}');
    expect(useUi.getState().grafting).toBeNull();
    act(() => setUi({ grafting: { do: 'across', part: 'R2' } }));
    await user.click(screen.getByRole('button', { name: 'Leave' }));
    expect(useUi.getState().grafting).toBeNull();
  });
});

describe('what can be done to a part', () => {
  beforeEach(() => openNow());
  const press = (name: string) => user.click(screen.getByRole('button', { name }));

  test('short, take out, and as designed again', async () => {
    const all = parts().map((p) => p.id);
    shown(null, 'C1');
    await press('take out');
    expect(parts().map((p) => p.id)).not.toContain('C1');
    expect(told()).toEqual(['C1 is taken out']);
    expect(useUi.getState().partId).toBeNull();
    act(() => setUi({ partId: 'R1' }));
    await press('short');
    expect(parts().map((p) => p.id)).not.toContain('R1');
    await press('as designed again');
    expect(
      parts()
        .map((p) => p.id)
        .sort(),
    ).toEqual([...all].sort());
    expect(stages()[0].drawing).toBeUndefined();
  });

  test('a potentiometer can be turned by a knob, once', async () => {
    shown({ do: 'across', part: 'R1' });
    await type('combobox', 'Kind of part', 'potentiometer');
    await type('textbox', 'Its name', 'P1');
    screen.getByRole('textbox', { name: 'Its name' }).focus();
    await enter();
    act(() => setUi({ partId: 'P1' }));
    await press('turn it by a knob');
    expect(screen.getByRole('slider', { name: 'Control P1' })).toBeDefined();
    expect(screen.queryByRole('button', { name: 'turn it by a knob' })).toBeNull();
  });

  test.each(['across it', 'in line', 'swap for …'])('“%s” begins the sentence', async (name) => {
    shown(null, 'R2');
    await press(name);
    expect(useUi.getState().grafting).toMatchObject({ part: 'R2' });
    expect(screen.getByRole('form', { name: 'Change the circuit' })).toBeDefined();
  });
});

describe('a circuit from nothing', () => {
  const empty: Stage = {
    id: 's1',
    origin: 'hand',
    bypassed: false,
    drawing: {
      symbols: [
        { kind: 'port', name: 'in', flow: 'in', net: 'in', at: [0, 4] },
        { kind: 'port', name: 'out', flow: 'out', net: 'out', at: [12, 4] },
      ],
      wires: [],
    },
    parts: {},
  };
  beforeEach(() => {
    const sheet = newSheet();
    openNow(newSheet(LOW_PASS, { ways: [{ ...sheet.ways[0], stages: [empty] }], readings: [] }));
  });

  test('part by part from the input: the sentence goes on from where the last part ended', async () => {
    shown({ do: 'put' });
    const sentence = () => within(screen.getByRole('form', { name: 'Change the circuit' }));
    const value = () => sentence().getByRole('textbox', { name: 'Value' });
    await user.type(value(), '10k');
    await enter();
    expect(part('R1').nets.a).toBe('in');
    // From the end of R1 a capacitor to ground.
    await type('combobox', 'Kind of part', 'capacitor');
    await user.type(value(), '22n');
    await type('combobox', 'To', 'ground');
    value().focus();
    await enter();
    expect(part('C1').nets).toEqual({ a: part('R1').nets.b, b: '0' });
    expect(valuesOf(stages()[0])).toEqual({ R1: 10_000, C1: 22e-9 });
    expect(useUi.getState().grafting).toEqual({ do: 'put' });
  });

  test('a point is listened to, named, and marked as a further output', async () => {
    shown({ do: 'put' });
    await user.type(screen.getByRole('textbox', { name: 'Value' }), '10k');
    await enter();
    const point = (form: string) => within(screen.getByRole('form', { name: form }));
    const last = async (form: string, name?: string) => {
      const combo = point(form).getByRole('combobox', { name: 'Point' });
      act(() => combo.focus());
      await user.keyboard('R1.b');
      await user.tab();
      if (name !== undefined)
        await user.type(point(form).getByRole('textbox', { name: 'Name of the point' }), name);
      point(form).getByRole('combobox', { name: 'Point' }).focus();
      await enter();
    };
    act(() => setUi({ grafting: { do: 'listen' } }));
    await last('Listen at a point');
    expect(part('R1').nets.b).toBe('out');
    act(() => setUi({ grafting: { do: 'output' } }));
    await last('Mark an output', 'tap');
    expect(outputsOf(stages()[0]).map((p) => p.name)).toContain('tap');
    act(() => setUi({ grafting: { do: 'name' } }));
    await last('Name a point', 'node');
    expect(
      drawingOf(stages()[0]).symbols.some(
        (s) => s.kind === 'name' && 'name' in s && s.name === 'node',
      ) || portsOf(drawingOf(stages()[0])).length > 1,
    ).toBe(true);
    expect(useUi.getState().grafting).toBeNull();
  });
});

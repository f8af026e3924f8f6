import { AcAnalysis } from '@/core/analysis/ac/ac';
import { quantityOfMeasure, ResponseReader, valueOrNaN } from '@/core/response/readings';
import { responseOf } from '@/core/response/response';
import { contextOf } from '@/core/sheet/layers';
import { USUAL_DEVIATIONS } from '@/core/sheet/usual-deviations';
import { withValue } from '@/core/sheet/stage';
import type { Sheet } from '@/core/sheet/schema';
import { newSheet } from '@/testing/open-sheet';
import { boardCircuit, nameOfValue, placeOfPart, keyOf, type SheetBoard } from './board-circuit';
import { compareTake } from './compare';
import { SOUND_CARD } from './meters';
import { readBoards, readTake } from './take-readings';
import { measureRigBoard } from './rig-board';

const SHEET = newSheet();
const EXACT = { ...USUAL_DEVIATIONS, resistor: 0, capacitor: 0, inductor: 0, opAmp: 0 };
const [FIRST, SECOND] = SHEET.ways[0].stages;
const board = (values: SheetBoard['values'] = {}): SheetBoard => ({
  id: 'b1',
  name: 'Board 1',
  values,
  takes: [],
  note: '',
});
const C2 = { stage: SECOND.id, part: 'C1' };

describe('a board of a sheet as a circuit', () => {
  test('has what was measured on it in the place of what was chosen, and believes it', () => {
    const name = boardCircuit(SHEET, undefined).circuit.parts.find(
      (p) =>
        placeOfPart(SHEET, p.id)?.stage === C2.stage && placeOfPart(SHEET, p.id)?.part === 'C1',
    )!.id;
    const key = keyOf({ way: SHEET.ways[0].id, ...C2 });
    expect(nameOfValue(SHEET, key)).toBe(name);
    const { circuit, rules } = boardCircuit(SHEET, board({ [key]: 12.3e-9 }));
    expect(circuit.parts.find((p) => p.id === name)).toMatchObject({ farads: 12.3e-9 });
    expect(rules[name].tolerance).toBeLessThan(0.01);
    const other = boardCircuit(SHEET, board()).rules[name] as { tolerance: number } | undefined;
    expect(other?.tolerance ?? 0.05).toBeGreaterThanOrEqual(0.01);
    // Of a part that is gone the key itself is left, and nothing changes.
    expect(nameOfValue(SHEET, 'w9/s9/R9')).toBe('w9/s9/R9');
    expect(boardCircuit(SHEET, board({ 'w9/s9/R9': 1 })).circuit).toEqual(
      boardCircuit(SHEET, undefined).circuit,
    );
  });

  test('what stands at its ends is not of it', () => {
    const { circuit, fixed } = boardCircuit(SHEET, undefined);
    for (const { id } of circuit.parts) expect(fixed.has(id)).toBe(placeOfPart(SHEET, id) === null);
  });
});

describe('a take held against its board', () => {
  const take = measureRigBoard(SHEET, { seed: 2, fault: 'C3=*1.4', noiseDb: 0.05 });
  const found = compareTake(SHEET, board(), take);

  test('names the part, its value, and draws what it makes of the difference', () => {
    const [first] = found.findings.ranking;
    expect(first.parts[0].id).toBe('C3');
    const [{ should, seems }] = found.values[0];
    expect(seems! / should!).toBeCloseTo(first.parts[0].factor, 10);
    // What the suspect makes of it lies on what was measured.
    const left = found.differenceDb.map((db, k) => db - found.explainedDb[0][k]);
    const rms = (values: Float64Array) =>
      Math.sqrt(values.reduce((s, v) => s + v * v, 0) / values.length);
    // But for what the tolerances of all others do.
    expect(rms(left)).toBeLessThan(0.5);
    expect(rms(found.differenceDb)).toBeGreaterThan(3 * rms(left));
    found.predictedDb.forEach((db, k) =>
      expect(db + found.findings.gainDb + found.differenceDb[k]).toBeCloseTo(take.levelDb[k], 9),
    );
  });

  test('taken as measured, nothing is left to be held against anyone', () => {
    const place = placeOfPart(SHEET, 'C3')!;
    const key = keyOf(place);
    const again = compareTake(SHEET, board({ [key]: found.values[0][0].seems! }), take);
    expect(again.findings.ordinary.enough).toBe(true);
  });
});

describe('readings of boards', () => {
  test('of a take without noise are those of its circuit, whatever the level', () => {
    const sound = measureRigBoard(
      { ...SHEET, parts: { ...SHEET.parts, deviations: EXACT } },
      { seed: 1, fault: '', noiseDb: 0 },
    );
    const [{ values, gainDb }] = readBoards(SHEET, [{ board: board(), take: sound }]);
    const { circuit, probe } = boardCircuit(SHEET, undefined);
    const reader = new ResponseReader(responseOf(new AcAnalysis(circuit), probe), {
      span: SHEET.view,
      context: contextOf(SHEET)!,
    });
    expect(values.length).toBeGreaterThan(1);
    SHEET.readings.forEach(({ measure }, i) => {
      const exact = valueOrNaN(reader, measure);
      if (values[i] === null || !Number.isFinite(exact)) return;
      const room = quantityOfMeasure(measure) === 'hertz' ? 1e-4 * exact : 0.01;
      expect(Math.abs(values[i] - exact)).toBeLessThan(room);
    });
    expect(values.some((v) => v !== null)).toBe(true);
    expect(Math.abs(gainDb)).toBeLessThanOrEqual(3.01);
  });

  test('beyond a take there is nothing to be read', () => {
    const flat = (hz: Float64Array) => ({ re: hz.map(() => 1), im: hz.map(() => 0) });
    const hertz = { measure: 'level', atHz: 50_000 } as const;
    const sheet: Sheet = { ...SHEET, readings: [{ id: 'far', measure: hertz }] };
    const take = { frequenciesHz: [100, 1000, 5000], levelDb: [0, 0, -10] };
    expect(readTake(sheet, take, 0, flat)).toEqual([null]);
    const near = { measure: 'level', atHz: 100 } as const;
    expect(
      readTake({ ...sheet, readings: [{ id: 'near', measure: near }] }, take, -1, flat),
    ).toEqual([expect.closeTo(1, 9)]);
  });
});

test('what it was measured with is in the prediction, and nobody’s fault', () => {
  // A passive first stage by itself feels a sound card; an op-amp’s output hardly does.
  const passive = newSheet(
    { ...SHEET.ask, order: 1, edgeHz: 1000, topology: 'rc-low-pass' },
    { id: 'rc' },
  );
  const meter = SOUND_CARD;
  const take = measureRigBoard(passive, { seed: 3, fault: '', noiseDb: 0.02, meter });
  const told = compareTake(passive, undefined, { ...take, meter });
  expect(told.findings.ordinary.enough).toBe(true);
  const untold = compareTake(passive, undefined, take);
  expect(untold.findings.ordinary.chance).toBeLessThan(told.findings.ordinary.chance);
});

test('a simulated board knows the names of the sheet, and says which there are', () => {
  expect(() => measureRigBoard(SHEET, { seed: 1, fault: 'C9=*2', noiseDb: 0.1 })).toThrow(
    'There is no part “C9”; there are',
  );
  const changed: Sheet = {
    ...SHEET,
    ways: [
      {
        ...SHEET.ways[0],
        stages: [withValue(FIRST, 'R1', FIRST.parts.R1.value! * 2), SECOND],
      },
    ],
  };
  const [own, other] = [SHEET, changed].map(
    (s) => measureRigBoard(s, { seed: 1, fault: '', noiseDb: 0 }).levelDb,
  );
  expect(own).not.toEqual(other);
});

import { nearestPreferred } from '@/core/quantity/series';
import { spaced } from '@/core/response/landmarks';
import { newSheet } from '@/testing/open-sheet';
import { boardCircuit } from './board-circuit';
import { withSuspect } from './compare';
import { mendBoard } from './mend';
import { trims } from './trim';

const SHEET = newSheet();
const { circuit, probe, fixed } = boardCircuit(SHEET, undefined);
const movable = circuit.parts.map((p) => p.id).filter((id) => !fixed.has(id));
const frequenciesHz = spaced(SHEET.view.fromHz, SHEET.view.toHz, 61);
const trimsFor = (id: string, factor: number) =>
  trims({
    circuit,
    real: withSuspect(circuit, { parts: [{ id, factor }] }),
    probe,
    frequenciesHz,
    movable: movable.filter((other) => other !== id),
    series: 'E96',
  });

test('a resistor of a series brings a board in, and says by how much', () => {
  const found = movable
    .filter((id) => /[RC]\d$/.test(id))
    .flatMap((id) => trimsFor(id, 1.15).map((trim) => ({ id, ...trim })));
  expect(found.length).toBeGreaterThan(2);
  for (const { id, part, value, now, beforeDb, afterDb } of found) {
    expect(part).not.toBe(id);
    expect(value).toBe(nearestPreferred(value, 'E96'));
    expect(value).not.toBe(now);
    expect(afterDb).toBeLessThan(beforeDb / 2);
  }
});

test('of two resistors in a row one makes up for the other; of a sound board nothing is changed', () => {
  const [first] = movable.filter((id) => /R\d$/.test(id));
  const [best] = trimsFor(first, 1.2) as (ReturnType<typeof trimsFor>[number] | undefined)[];
  expect(best).toBeDefined();
  // Up, so the other comes down.
  expect(best!.value).toBeLessThan(best!.now);
  expect(trimsFor(first, 1)).toEqual([]);
});

test('the right part is taken from the drawer where it lies there', () => {
  const culprit = { id: 'C3', factor: 1.4 };
  const part = circuit.parts.find((p) => p.id === 'C3')!;
  if (part.kind !== 'capacitor') throw new Error('a capacitor');
  const entry = (id: string, value: number, quantity: number) => ({
    format: 'jaunty-reed/stock' as const,
    version: 1 as const,
    id,
    name: id,
    kind: 'capacitor',
    value,
    quantity,
    note: '',
  });
  const drawer = [
    entry('few', part.farads, 2),
    entry('many', part.farads, 20),
    entry('none', part.farads, 0),
    entry('other', part.farads * 1.5, 9),
  ];
  const take = { frequenciesHz: Array.from(frequenciesHz) };
  const { swaps } = mendBoard({ sheet: SHEET, board: undefined, take, culprit, drawer });
  expect(swaps.map((s) => s.id)).toEqual(['many', 'few']);
});

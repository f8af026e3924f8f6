import { makeCircuit } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { withoutPause } from '@/core/lenses/layers';
import type { Sheet } from '@/core/sheet/schema';
import { newSheet } from '@/testing/open-sheet';
import { foresee } from '../foreseen';
import { buildSteps } from './build-steps';
import { deadChecks, deadResistance } from './dead-checks';
import { METERS, whatMetersDo } from '../meters';
import { withForeseen } from './reading-steps';
import { restChecks } from './rest-checks';
import type { BenchStep } from './step';

const SHEET = newSheet();
const stepsOf = async (sheet: Sheet) => {
  const steps = await buildSteps(
    { sheet, board: undefined, drawer: [], mark: 'point' },
    withoutPause,
  );
  return withForeseen(steps, sheet, await foresee(sheet, [], withoutPause), 'point');
};
const called = (steps: readonly BenchStep[], id: string) => steps.find((s) => s.id === id)!;

describe('the steps of a board', () => {
  test('come in the order in which it is built, each once, with cautions where they matter', async () => {
    const steps = await stepsOf(SHEET);
    const ids = steps.map((s) => s.id);
    expect(new Set(ids).size).toBe(ids.length);
    const at = (id: string) => {
      expect(ids).toContain(id);
      return ids.indexOf(id);
    };
    const order = [
      'solder-resistors',
      'solder-sockets',
      'solder-capacitors',
      'inspect',
      'dead-in',
      'rails-apart',
      'rails',
      'amplifiers',
      'rest-A1',
      'sweep',
      'listen',
    ].map(at);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(called(steps, 'solder-resistors').caution).toMatch(/iron/);
    expect(called(steps, 'rails').caution).toMatch(/reversed supply.*mains/s);
    expect(called(steps, 'amplifiers').caution).toMatch(/hold their charge/);
    expect(called(steps, 'sweep').caution).toMatch(/loud/);
    expect(called(steps, 'sweep').detail).toMatch(/clips first/);
    for (const { expects } of steps)
      if (expects) expect(expects.least).toBeLessThanOrEqual(expects.most);
    for (const { id } of SHEET.readings) expect(ids).toContain(`reading-${id}`);
  });

  test('name every part that is soldered', async () => {
    const steps = await stepsOf(SHEET);
    const told = steps
      .filter((s) => s.id.startsWith('solder-'))
      .map((s) => s.detail)
      .join(' ');
    for (const name of ['R1', 'R2', 'R3', 'R4', 'C1', 'C2', 'C3', 'C4'])
      expect(told).toMatch(new RegExp(`\\b${name}\\b`));
  });

  test('a network without devices has no rails', async () => {
    const passive = newSheet({
      kind: 'low-pass',
      shape: 'butterworth',
      order: 1,
      edgeHz: 1000,
      edge: 'half-power',
      gainDb: 0,
      topology: 'rc-low-pass',
    });
    const ids = (await stepsOf(passive)).map((s) => s.id);
    expect(ids).not.toContain('rails');
    expect(ids).toContain('sweep');
  });
});

describe('what should be read', () => {
  const divider = makeCircuit([
    UNIT_SOURCE,
    { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 10_000 },
    { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 10_000 },
    { id: 'C1', kind: 'capacitor', a: 'out', b: 'far', farads: 1e-6 },
    { id: 'R3', kind: 'resistor', a: 'far', b: 'end', ohms: 100 },
  ]);

  test('resistances without power, with what tolerances and the meter do; open is open', () => {
    const rules = { resistor: { tolerance: 0.05 } };
    const { least, most } = deadResistance(divider, 'in', '0', rules);
    expect(least).toBeLessThan(19_100);
    expect(least).toBeGreaterThan(18_700);
    expect(most).toBeGreaterThan(20_900);
    expect(most).toBeLessThan(21_500);
    expect(deadResistance(divider, 'far', '0', rules).most).toBe(Infinity);
  });

  test('what a coil without a resistance of its own joins is joined, and not open', () => {
    const coil = makeCircuit([
      UNIT_SOURCE,
      { id: 'L1', kind: 'inductor', a: 'in', b: 'out', henries: 1e-3 },
      { id: 'R1', kind: 'resistor', a: 'out', b: '0', ohms: 8 },
      { id: 'L2', kind: 'inductor', a: 'out', b: '0', henries: 1e-3 },
    ]);
    expect(deadResistance(coil, 'in', '0', {})).toMatchObject({ least: 0, most: 5 });
    const [{ detail }] = deadChecks(coil, 'out', {});
    expect(detail).toMatch(/Joined/);
  });

  test('points at rest: an offset times the gain, of either sign', () => {
    const amplifier = makeCircuit([
      UNIT_SOURCE,
      { id: 'Rg', kind: 'resistor', a: 'm', b: '0', ohms: 1000 },
      { id: 'Rf', kind: 'resistor', a: 'm', b: 'out', ohms: 9000 },
      {
        id: 'A1',
        kind: 'op-amp',
        inPlus: 'in',
        inMinus: 'm',
        out: 'out',
        model: { gainBandwidthHz: 1e6, dcGainDb: 120, offsetVolts: 0.003 },
      },
    ]);
    const [{ expects }] = restChecks(amplifier);
    expect(expects!.most).toBeCloseTo(0.032, 3);
    expect(expects!.least).toBeCloseTo(-0.032, 3);
  });

  test('what a meter does to a net of some resistance, and to none', () => {
    const hz = Float64Array.of(100, 1000, 10_000);
    const [probe, , card] = whatMetersDo(divider, 'out', hz);
    // 5 kΩ into 20 kΩ: a fifth is lost.
    expect(card.db).toBeCloseTo(20 * Math.log10(0.8), 1);
    expect(Math.abs(probe.db)).toBeLessThan(0.05);
    expect(METERS).toHaveLength(3);
    for (const { db } of whatMetersDo(divider, 'in', hz)) expect(db).toBeCloseTo(0, 9);
  });
});

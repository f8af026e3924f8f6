import fc from 'fast-check';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import { BIAS_STAGES, biasStageOf } from './index';
import { solvedBias } from './solved';
import type { BiasAsk } from './stage';

const ASK: BiasAsk = { volts: 9, amps: 1e-3, gain: 10, sourceOhms: 1e3, loadOhms: 47e3 };
const stageOf = (id: string) => biasStageOf(id)!;
const solve = (id: string, ask: BiasAsk = ASK) => {
  const stage = stageOf(id);
  const parts = stage.plan(ask);
  return {
    parts,
    rules: stage.rules((part) => parts[part]?.value ?? NaN, ask),
    solved: solvedBias(stage.drawing, parts, ask),
  };
};

describe.each(BIAS_STAGES.map((s) => [s.id, s] as const))('%s', (id, stage) => {
  test('is drawn soundly, every part planned, and each improvement exists', () => {
    const { faults, parts } = netsOfDrawing(stage.drawing);
    expect(faults).toEqual([]);
    const planned = stage.plan(ASK);
    for (const part of parts) expect(planned).toHaveProperty(part.id);
    for (const { to } of stage.improve) expect(biasStageOf(to)).toBeDefined();
  });

  test('the rule of thumb is near what is solved', () => {
    const { rules, solved } = solve(id);
    expect(Math.abs(solved.gain / rules.gain - 1)).toBeLessThan(0.12);
    expect(solved.inputOhms / rules.inputOhms).toBeGreaterThan(0.5);
    expect(solved.inputOhms / rules.inputOhms).toBeLessThan(2);
    for (const [part, q] of Object.entries(rules.rest)) {
      expect(Math.abs(solved.rest[part].base - q.base)).toBeLessThan(0.8);
      expect(Math.abs(solved.rest[part].amps / q.amps - 1)).toBeLessThan(0.3);
    }
  });

  test('rests unsaturated, near the current that was asked for, whatever is asked', () => {
    fc.assert(
      fc.property(
        fc.record({
          volts: fc.double({ min: 6, max: 40, noNaN: true }),
          amps: fc.double({ min: 1e-4, max: 1e-2, noNaN: true }),
          gain: fc.double({ min: 2, max: 20, noNaN: true }),
          sourceOhms: fc.double({ min: 10, max: 1e5, noNaN: true }),
          loadOhms: fc.double({ min: 1e4, max: 1e6, noNaN: true }),
        }),
        (ask) => {
          const { solved } = solve(id, ask);
          const all = Object.values(solved.rest);
          expect(all.every((q) => q.marginVolts > 0.3)).toBe(true);
          const { amps } = all[all.length - 1];
          expect(amps / ask.amps).toBeGreaterThan(0.5);
          expect(amps / ask.amps).toBeLessThan(1.6);
          expect(solved.swingVolts).toBeGreaterThan(0);
        },
      ),
      { numRuns: 60 },
    );
  });
});

test('a bootstrap lifts the input tenfold, a buffer lowers the output as far, an emitter’s resistor takes gain', () => {
  const [plain, lifted] = [solve('follower').solved, solve('bootstrapped-follower').solved];
  expect(lifted.inputOhms).toBeGreaterThan(10 * plain.inputOhms);
  expect(lifted.sourceDb).toBeGreaterThan(plain.sourceDb);
  const common = solve('common-emitter').solved;
  expect(solve('common-emitter-buffered').solved.outputOhms).toBeLessThan(common.outputOhms / 10);
  const open = solve('common-emitter-open').solved;
  expect(Math.abs(open.gain)).toBeLessThan(Math.abs(common.gain) / 2);
  expect(open.inputOhms).toBeGreaterThan(common.inputOhms);
});

test('volts add up: across a transistor and its resistors stands the supply', () => {
  const { parts, solved } = solve('common-emitter');
  const { collector, emitter, amps, baseAmps, watts } = solved.rest.Q1;
  expect(collector + amps * parts.RC.value!).toBeCloseTo(9, 6);
  expect(emitter).toBeCloseTo((amps + baseAmps) * (parts.RE1.value! + parts.RE2.value!), 6);
  expect(watts).toBeCloseTo(
    amps * (collector - emitter) + baseAmps * (solved.rest.Q1.base - emitter),
    8,
  );
});

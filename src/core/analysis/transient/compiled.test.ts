import { makeCircuit, readCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { CompiledSteps } from '../compiled/compiled-steps';
import { OperatingPointSearch } from '../dc/search';
import { compile } from '@/core/circuit/compile';
import { polesAndZeros } from '../poles/poles';
import { stepsAfterJump } from '../linear-time/schedule';
import { Course } from './course';
import { RandomCircuits } from '../testing/random-circuits';
import {
  FORGETTING,
  LEAST_SWING,
  LEAST_VOLTS,
  parabola,
  Stepper,
  trapezoidalError,
} from './stepper';
import { transient, type TransientResult } from './transient';

const SECONDS = 1 / 192_000;

/** Both twins' course of all nets, and how many steps were compiled in how many calls. */
function twins(circuit: Circuit, untilSeconds: number, stepSeconds = SECONDS, tolerance = 1e-4) {
  const probes = compile(circuit).unknowns.flatMap((u) => (u.kind === 'net' ? [u.name] : []));
  const request = { untilSeconds, stepSeconds, probes, tolerance };
  const plain = transient(circuit, { ...request, by: 'twin' });
  const advance = jest.spyOn(CompiledSteps.prototype, 'advance');
  const compiled = transient(circuit, { ...request, by: 'compiled' });
  const taken = advance.mock.results.map(({ value }) => value as number);
  advance.mockRestore();
  return { plain, compiled, calls: taken.length, steps: taken.reduce((sum, n) => sum + n, 0) };
}

/** How far two courses are apart, as a part of the largest voltage. */
function apart(a: TransientResult, b: TransientResult): number {
  expect(a.timesSeconds).toEqual(b.timesSeconds);
  let [off, most] = [0, 0];
  for (const [net, volts] of Object.entries(a.probes))
    volts.forEach((v, k) => {
      off = Math.max(off, Math.abs(v - b.probes[net][k]));
      most = Math.max(most, Math.abs(v));
    });
  return off / most;
}

describe('compiled steps and their plain twin', () => {
  test.each([false, true])('agree on random circuits of every device (further: %s)', (further) => {
    const random = new RandomCircuits(further ? 4 : 3);
    let [compared, steps, refused] = [0, 0, 0];
    for (let n = 0; n < 24; n++) {
      const circuit = random.bent(further);
      let both;
      try {
        both = twins(circuit, 5e-4);
      } catch (error) {
        expect(error).toBeInstanceOf(ReedError);
        continue;
      }
      // Where a circuit balances on a point that it runs away from, rounding decides which way.
      if (polesAndZeros(circuit, 'n0').verdict === 'unstable') continue;
      compared++;
      steps += both.steps;
      refused += Math.max(0, both.calls - 3);
      expect(apart(both.plain, both.compiled)).toBeLessThan(1e-12);
    }
    expect(compared).toBeGreaterThan(18);
    // Nearly all steps are compiled; some are not taken, and go on where they were left.
    expect(steps).toBeGreaterThan(0.7 * 96 * compared);
    expect(refused).toBeGreaterThan(4);
  });

  test('agree across jumps, bends and recorded samples', () => {
    const waveforms = [
      { shape: 'square', lowVolts: -1, highVolts: 1, frequencyHz: 1234.5, riseSeconds: 2e-6 },
      { shape: 'square', lowVolts: -1, highVolts: 1, frequencyHz: 987 },
      { shape: 'triangle', amplitudeVolts: 2, frequencyHz: 2500 },
      {
        shape: 'samples',
        sampleSeconds: 1 / 48_000,
        volts: Array.from({ length: 200 }, (_, k) => Math.sin(0.1 * k) + 0.3 * Math.sin(k)),
      },
    ];
    for (const waveform of waveforms) {
      const circuit = clipper({ shape: 'step', highVolts: 0 }, waveform);
      const { plain, compiled, steps } = twins(circuit, 4e-3, 1 / 384_000, 1e-2);
      expect(steps).toBeGreaterThan(500);
      expect(apart(plain, compiled)).toBeLessThan(1e-12);
    }
  });

  test('agree on a course of uneven steps with jumps', () => {
    const system = compile(clipper(), 'large-signal');
    const search = new OperatingPointSearch(system);
    const { equations } = search;
    const start = search.find();
    const out = system.netIndex.get('out')!;
    const advance = jest.spyOn(CompiledSteps.prototype, 'advance');
    const [plain, compiled] = [0, Infinity].map((steps) => {
      const course = new Course(equations, start, 'V', out, 64e-7, steps);
      const volts: number[] = [];
      for (const peak of [1, -2, 0.5]) {
        let first = true;
        for (const k of stepsAfterJump(1500, 6)) {
          course.step(2 ** k * 1e-7, peak, first);
          first = false;
          volts.push(course.out);
        }
      }
      return volts;
    });
    expect(advance.mock.results.filter(({ value }) => value === 1).length).toBeGreaterThan(60);
    advance.mockRestore();
    compiled.forEach((v, k) => expect(Math.abs(v - plain[k])).toBeLessThan(1e-11));
  });

  test('values and the length of the steps may change while it runs', () => {
    const system = compile(clipper(), 'large-signal');
    const search = new OperatingPointSearch(system);
    const { equations } = search;
    const start = search.find();
    const [plain, other] = [new Stepper(equations, start), new Stepper(equations, start)];
    const row = system.sources.find(({ part }) => part === 'V')!.row;
    const out = system.netIndex.get('out')!;
    const compiled = CompiledSteps.of(equations, start, {
      rest: new Float64Array(equations.size),
      restRows: new Set(),
      inputs: [{ row, sign: 1 }],
      outputs: [out],
      size: { least: LEAST_SWING, forgetting: FORGETTING, volts: LEAST_VOLTS },
      seconds: 1e-6,
    })!;
    const parameter = (part: string, name: string) => system.places.get(part)!.get(name)!;
    const rhs = new Float64Array(equations.size);
    const volts = (k: number) => 0.8 * Math.sin(0.002 * k);
    const take = (stepper: Stepper, k: number, seconds: number) => {
      rhs[row] = volts(k);
      expect(stepper.tryTrapezoidal(seconds, rhs, 1)).toBeLessThan(1);
      stepper.take(seconds);
    };
    for (const stepper of [plain, other]) {
      stepper.euler(1e-6, rhs);
      stepper.take(1e-6);
      for (let k = 0; k < 2; k++) {
        stepper.tryStep(0, 1e-6, { at: () => rhs }, 1, 1);
        stepper.take(1e-6);
      }
    }
    compiled.enter(other);
    const gaps = Float64Array.of(1e-6, 1e-6);
    for (let k = 1; k <= 600; k++) {
      if (k === 200) equations.values.all[parameter('C', 'farads')] *= 3;
      if (k === 300) equations.values.all[parameter('D', 'saturationAmps')] *= 10;
      equations.values.refresh();
      equations.update();
      const seconds = k < 400 ? 1e-6 : 2.5e-6;
      expect(compiled.prepare(seconds)).toBe(true);
      compiled.follow(seconds, parabola(seconds, gaps), trapezoidalError(seconds, gaps));
      gaps[1] = gaps[0];
      gaps[0] = seconds;
      compiled.inputs[0] = volts(k);
      expect(compiled.advance(1)).toBe(1);
      take(plain, k, seconds);
      expect(Math.abs(compiled.outputs[0] - plain.x[out])).toBeLessThan(1e-12);
    }
    compiled.leave(other);
    // Of nets: the currents of sources are found anew when the plain stepper goes on.
    for (const i of system.netIndex.values())
      expect(Math.abs(other.x[i] - plain.x[i])).toBeLessThan(1e-12);
  });
});

function clipper(slow?: object, waveform?: object): Circuit {
  const model = { saturationAmps: 1e-9, emissionCoefficient: 1.8, junctionFarads: 1e-11 };
  const parts = [
    { id: 'V', kind: 'voltage-source', plus: 'in', minus: '0', ...(waveform ? { waveform } : {}) },
    { id: 'R', kind: 'resistor', a: 'in', b: 'out', ohms: 4700 },
    { id: 'C', kind: 'capacitor', a: 'out', b: '0', farads: 1e-8 },
    { id: 'D', kind: 'diode', anode: 'out', cathode: '0', model },
    { id: 'E', kind: 'diode', anode: '0', cathode: 'out', model },
    ...(slow
      ? [
          { id: 'VS', kind: 'voltage-source', plus: 's', minus: '0', waveform: slow },
          { id: 'RS', kind: 'resistor', a: 's', b: 'out', ohms: 1e6 },
        ]
      : []),
  ];
  return readCircuit(JSON.parse(JSON.stringify(makeCircuit(parts as Part[]))));
}

import { AcAnalysis } from '@/core/analysis/ac/ac';
import { operatingPoint } from '@/core/analysis/dc/operating-point';
import { makeCircuit, type Circuit, type Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { ROOM_KELVIN, THERMAL_VOLTS } from '@/core/constants';
import { CANCELS_PPM, convertedOctaves } from './converter';
import { filterFigures } from './tune';
import { timesRoom, warmed } from './warmed';

const WARM = 313.15;
const COLD = 283.15;
const NPN = { polarity: 'npn' as const, saturationAmps: 1e-14, betaForward: 1e9, betaReverse: 1 };
const npn = (id: string, base: string, emitter: string): Part => ({
  id,
  kind: 'transistor',
  collector: 'c',
  base,
  emitter,
  model: { ...NPN, baseEmitterFarads: 0, baseCollectorFarads: 0, transitSeconds: 0 },
});

describe('an exponential converter', () => {
  const ideal = { ppmPerKelvin: 0, ohms: 0 };
  const at = (octaves: number, kelvin = ROOM_KELVIN) => ({ octaves, balanceAmps: 1e-5, kelvin });

  test('makes at room temperature what it is asked for, and narrows as it gets warm', () => {
    expect(convertedOctaves(ideal, at(3))).toBe(3);
    expect(convertedOctaves(ideal, at(-4, WARM))).toBeCloseTo((-4 * ROOM_KELVIN) / WARM, 12);
  });

  test('keeps its scale where its divider grows with it, and its reference where that grows', () => {
    const met = { ppmPerKelvin: CANCELS_PPM, ohms: 0 };
    for (const kelvin of [COLD, WARM]) {
      expect(convertedOctaves(met, at(4, kelvin))).toBeCloseTo(4, 12);
      expect(convertedOctaves({ ...met, warmReference: true }, at(4, kelvin))).toBeCloseTo(
        4 + Math.log2(kelvin / ROOM_KELVIN),
        12,
      );
    }
  });

  test('flattens at its top as a transistor with that resistance in its emitter does', () => {
    const ohms = 20;
    const current = (volts: number): number => {
      const circuit = makeCircuit([
        { id: 'VB', kind: 'voltage-source', plus: 'b', minus: '0', dcVolts: volts },
        { id: 'VC', kind: 'voltage-source', plus: 'c', minus: '0', dcVolts: 5 },
        npn('Q1', 'b', 'e'),
        { id: 'R1', kind: 'resistor', a: 'e', b: '0', ohms },
      ]);
      return operatingPoint(circuit).nodes.e / ohms;
    };
    const rest = 0.55;
    const balanceAmps = current(rest);
    for (const octaves of [-3, 2, 5]) {
      const amps = current(rest + octaves * THERMAL_VOLTS * Math.LN2);
      const made = convertedOctaves({ ppmPerKelvin: 0, ohms }, { octaves, balanceAmps });
      expect(made).toBeCloseTo(Math.log2(amps / balanceAmps), 6);
    }
  });
});

describe('a warmed circuit', () => {
  const pole: Circuit = makeCircuit([
    UNIT_SOURCE,
    {
      id: 'G1',
      kind: 'ota',
      inPlus: 'in',
      inMinus: 'out',
      out: 'out',
      biasAmps: 1e-5,
    },
    { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-9 },
  ]);
  const corner = (circuit: Circuit) => filterFigures(new AcAnalysis(circuit), 'out').halfPowerHz!;

  test('has a transconductance that falls as the temperature rises', () => {
    for (const kelvin of [COLD, WARM])
      expect(corner(warmed(pole, kelvin)) / corner(pole)).toBeCloseTo(ROOM_KELVIN / kelvin, 9);
    expect(warmed(pole, ROOM_KELVIN)).toEqual(pole);
  });

  test('has a silicon junction that opens two millivolts a kelvin earlier', () => {
    const circuit = makeCircuit([
      { id: 'I1', kind: 'current-source', from: '0', to: 'c', dcAmps: 1e-4 },
      { ...npn('Q1', 'c', '0'), collector: 'c' } as Part,
    ]);
    const volts = (kelvin: number) =>
      operatingPoint(warmed(circuit, kelvin)).nodes.c * timesRoom(kelvin);
    const perKelvin = (volts(ROOM_KELVIN + 10) - volts(ROOM_KELVIN - 10)) / 20;
    // (v - Eg)/T - 3 k/q: see the docstring’s law of the saturation current.
    const expected = (volts(ROOM_KELVIN) - 1.12 - 3 * THERMAL_VOLTS) / ROOM_KELVIN;
    expect(perKelvin).toBeCloseTo(expected, 5);
    expect(perKelvin * 1000).toBeLessThan(-1.5);
  });

  test('leaves what does not bend as it was', () => {
    const linear = makeCircuit([
      UNIT_SOURCE,
      { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1e3 },
      { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-7 },
    ]);
    expect(corner(warmed(linear, WARM))).toBeCloseTo(corner(linear), 9);
  });
});

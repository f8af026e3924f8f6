import { ROOM_KELVIN, THERMAL_VOLTS } from '@/core/constants';
import type { Circuit, Part, PartOf } from '@/core/circuit/schema';

/**
 * How many times the room's thermal voltage that of a temperature is.
 */
export const timesRoom = (kelvin: number): number => kelvin / ROOM_KELVIN;

/** Energy gaps, volts: silicon, germanium, and what gives red or green light (S. M. Sze, "Physics of Semiconductor Devices", appendix F). */
const GAP = { silicon: 1.12, germanium: 0.66, light: 1.9 };

/** Which of them a junction has, from how much it lets through: they lie decades apart. */
function gapOf(saturationAmps: number, emission: number): number {
  if (emission > 1.5 && saturationAmps < 1e-15) return GAP.light;
  return emission < 1.5 && saturationAmps > 1e-9 ? GAP.germanium : GAP.silicon;
}

/** Growth of a saturation current: T^(3/n) exp(-Eg / (n VT)) (Sze, section 2.4, with the emission coefficient n). */
function growth(saturationAmps: number, times: number, emission = 1): number {
  const gap = gapOf(saturationAmps, emission);
  const power = (gap / THERMAL_VOLTS) * (1 - 1 / times) + 3 * Math.log(times);
  return Math.exp(power / emission);
}

type Warm<K extends Part['kind']> = (part: PartOf<K>, times: number) => PartOf<K>;

const over = (value: number | undefined, times: number): number | undefined =>
  value === undefined ? undefined : value / times;

/** What each kind of part becomes when all volts and amperes are counted in units `times` as large. */
const WARMED: { [K in Part['kind']]?: Warm<K> } = {
  'voltage-source': (p, a) => ({ ...p, dcVolts: over(p.dcVolts, a) }),
  'current-source': (p, a) => ({ ...p, dcAmps: over(p.dcAmps, a) }),
  diode: (p, a) => {
    const { saturationAmps, emissionCoefficient } = p.model;
    const grown = saturationAmps * growth(saturationAmps, a, emissionCoefficient);
    return { ...p, model: { ...p.model, saturationAmps: grown / a } };
  },
  transistor: (p, a) => {
    const { saturationAmps, earlyVolts } = p.model;
    const grown = saturationAmps * growth(saturationAmps, a);
    return {
      ...p,
      model: { ...p.model, saturationAmps: grown / a, earlyVolts: over(earlyVolts, a) },
    };
  },
  jfet: (p, a) => {
    const { saturatedDrainAmps, pinchOffVolts, lambdaPerVolt, gateSaturationAmps } = p.model;
    return {
      ...p,
      model: {
        ...p.model,
        saturatedDrainAmps: saturatedDrainAmps / a,
        pinchOffVolts: pinchOffVolts / a,
        lambdaPerVolt: lambdaPerVolt * a,
        gateSaturationAmps: (gateSaturationAmps * growth(gateSaturationAmps, a)) / a,
      },
    };
  },
  ota: (p, a) => ({ ...p, biasAmps: over(p.biasAmps, a), diodeAmps: over(p.diodeAmps, a) }),
  photocell: (p, a) => ({ ...p, curve: p.curve.map((c) => ({ ...c, amps: c.amps / a })) }),
  'op-amp': (p, a) => {
    if (p.model === 'ideal') return p;
    const { supply, ...m } = p.model;
    return {
      ...p,
      model: {
        ...m,
        offsetVolts: over(m.offsetVolts, a),
        biasAmps: over(m.biasAmps, a),
        slewVoltsPerSecond: over(m.slewVoltsPerSecond, a),
        headroomVolts: over(m.headroomVolts, a),
        inputHeadroomVolts: over(m.inputHeadroomVolts, a),
        outputAmps: over(m.outputAmps, a),
        ...(supply
          ? { supply: { plusVolts: supply.plusVolts / a, minusVolts: supply.minusVolts / a } }
          : {}),
      },
    };
  },
};

/**
 * A circuit whose junctions are at another temperature, everything else as it was. Only ratios of volts
 * to the thermal voltage kT/q bend anything: a thermal voltage `a` times as large is the same as all
 * volts and amperes counted in units `a` times as large, resistances, capacitances and inductances
 * unchanged. So sources, supplies and what devices saturate at are divided by it, and saturation
 * currents grow besides. Small-signal ratios are those at that temperature; voltages and currents of
 * what is returned are `timesRoom(kelvin)` times smaller than they would be. The built-in voltage of
 * depletion layers and the gains of transistors stay as they are.
 */
export function warmed(circuit: Circuit, kelvin: number): Circuit {
  const times = timesRoom(kelvin);
  return {
    ...circuit,
    parts: circuit.parts.map((part) => {
      const warm = WARMED[part.kind] as Warm<Part['kind']> | undefined;
      return warm ? withoutNothing(warm(part, times)) : part;
    }),
  };
}

/** Without the fields that are undefined: what a circuit leaves out it leaves out. */
function withoutNothing<T extends object>(part: T): T {
  const kept = Object.entries(part).flatMap(([key, value]: [string, unknown]) => {
    if (value === undefined) return [];
    const isHolder = typeof value === 'object' && value !== null && !Array.isArray(value);
    return [[key, isHolder ? withoutNothing(value) : value]];
  });
  return Object.fromEntries(kept) as T;
}

import { THERMAL_VOLTS } from '@/core/constants';
import { LAYER, type Diode } from '../devices/diode';
import { boundedExpLaw, depletionLaw, MOST_MOVE } from './junction';
import { sumOf, type Law } from './law';

/** One drop, one flow. */
export function diodeLaws({ model }: Diode): Law[] {
  const { saturationAmps, emissionCoefficient, junctionFarads, transitSeconds } = model;
  const vt = emissionCoefficient * THERMAL_VOLTS;
  return [
    {
      name: `diode${junctionFarads ? ' layer' : ''}${transitSeconds ? ' transit' : ''}`,
      drops: [{ plus: 0, minus: 1, bend: vt, most: MOST_MOVE }],
      constants: [saturationAmps, 1 / vt, saturationAmps / vt, junctionFarads, transitSeconds],
      write(a, [v], [amps, perVt, siemens, farads, seconds]) {
        const { excess, slope } = boundedExpLaw(a, a.mul(v, perVt));
        const current = a.mul(amps, excess);
        const conductance = a.mul(siemens, slope);
        const flow = { from: 0, to: 1, current, conductance: [conductance] };
        const charges = [
          ...(junctionFarads ? [depletionLaw(a, { ...LAYER, farads }, v)] : []),
          ...(transitSeconds
            ? [{ charge: a.mul(seconds, current), capacitance: a.mul(seconds, conductance) }]
            : []),
        ];
        if (charges.length === 0) return [flow];
        const charge = sumOf(a, ...charges.map((c) => c.charge));
        const capacitance = sumOf(a, ...charges.map((c) => c.capacitance));
        return [{ ...flow, charge, capacitance: [capacitance] }];
      },
    },
  ];
}

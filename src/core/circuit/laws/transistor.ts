import { THERMAL_VOLTS } from '@/core/constants';
import { LAYER, type Transistor } from '../devices/transistor';
import { boundedExpLaw, depletionLaw, MOST_MOVE } from './junction';
import { sumOf, type Flow, type Law } from './law';

/**
 * The drops are vbe and vbc, the flows go from collector and from base
 * to the emitter, and a charge from base to collector.
 */
export function transistorLaws({ model: m }: Transistor): Law[] {
  const sign = m.polarity === 'npn' ? 1 : -1;
  const drop = (minus: number) => ({ plus: 1, minus, bend: THERMAL_VOLTS, most: MOST_MOVE });
  const charged = [
    ['emitter layer', m.baseEmitterFarads],
    ['collector layer', m.baseCollectorFarads],
    ['transit', m.transitSeconds],
  ].flatMap(([name, value]) => (value ? [name] : []));
  return [
    {
      name: ['transistor', ...(m.earlyVolts ? ['early'] : []), ...charged].join(' '),
      drops: [drop(2), drop(0)],
      constants: [
        sign,
        sign / THERMAL_VOLTS,
        m.saturationAmps,
        m.saturationAmps / THERMAL_VOLTS,
        1 / m.betaForward,
        1 / m.betaReverse,
        m.earlyVolts ? 1 / m.earlyVolts : 0,
        m.baseEmitterFarads,
        m.baseCollectorFarads,
        m.transitSeconds,
      ],
      write(a, [be, bc], [sense, perVt, amps, siemens, perBf, perBr, perEarly, cbe, cbc, seconds]) {
        const emitter = boundedExpLaw(a, a.mul(be, perVt));
        const collector = boundedExpLaw(a, a.mul(bc, perVt));
        const forward = a.mul(amps, emitter.excess);
        const reverse = a.mul(amps, collector.excess);
        const gf = a.mul(siemens, emitter.slope);
        const gr = a.mul(siemens, collector.slope);
        const through = a.sub(forward, reverse);
        let transport = through;
        let icBe = gf;
        let icBc = a.neg(gr);
        if (m.earlyVolts) {
          const early = a.sub(a.number(1), a.mul(a.mul(sense, bc), perEarly));
          transport = a.mul(through, early);
          icBe = a.mul(gf, early);
          icBc = a.sub(a.neg(a.mul(gr, early)), a.mul(through, perEarly));
        }
        const collectorFlow: Flow<typeof be> = {
          from: 0,
          to: 2,
          current: a.mul(sense, a.sub(transport, a.mul(reverse, perBr))),
          conductance: [icBe, a.sub(icBc, a.mul(gr, perBr))],
        };
        const baseFlow: Flow<typeof be> = {
          from: 1,
          to: 2,
          current: a.mul(sense, a.add(a.mul(forward, perBf), a.mul(reverse, perBr))),
          conductance: [a.mul(gf, perBf), a.mul(gr, perBr)],
        };
        const flows = [collectorFlow, baseFlow];
        const stored = [
          ...(m.baseEmitterFarads
            ? [depletionLaw(a, { ...LAYER, farads: cbe }, a.mul(sense, be))]
            : []),
          ...(m.transitSeconds
            ? [{ charge: a.mul(seconds, forward), capacitance: a.mul(seconds, gf) }]
            : []),
        ];
        if (stored.length > 0) {
          baseFlow.charge = a.mul(sense, sumOf(a, ...stored.map((s) => s.charge)));
          baseFlow.capacitance = [sumOf(a, ...stored.map((s) => s.capacitance)), undefined];
        }
        if (m.baseCollectorFarads) {
          const layer = depletionLaw(a, { ...LAYER, farads: cbc }, a.mul(sense, bc));
          const charge = a.mul(sense, layer.charge);
          flows.push({ from: 1, to: 0, charge, capacitance: [undefined, layer.capacitance] });
        }
        return flows;
      },
    },
  ];
}

import { THERMAL_VOLTS } from '@/core/constants';
import type { Jfet } from '../devices/jfet';
import { boundedExpLaw, MOST_MOVE } from './junction';
import type { Flow, Law } from './law';

/**
 * With A and D what the gate lies above pinch-off as seen from source and
 * drain, and nothing where it lies below, the square law is beta (A^2 - D^2) (1 + lambda |vds|), in
 * both directions, triode and saturation alike.
 */
export function jfetLaws({ model: m }: Jfet): Law[] {
  const drop = (minus: number) => ({ plus: 1, minus, bend: THERMAL_VOLTS, most: MOST_MOVE });
  return [
    {
      name: `jfet${m.gateDrainFarads ? ' drain' : ''}${m.gateSourceFarads ? ' source' : ''}`,
      drops: [drop(0), drop(2)],
      constants: [
        m.polarity === 'n' ? 1 : -1,
        m.saturatedDrainAmps / m.pinchOffVolts ** 2,
        m.pinchOffVolts,
        m.lambdaPerVolt,
        m.gateSaturationAmps,
        m.gateSaturationAmps / THERMAL_VOLTS,
        m.gateDrainFarads,
        m.gateSourceFarads,
      ],
      write(
        a,
        [gd, gs],
        [sense, beta, pinchOff, lambda, amps, siemens, drainFarads, sourceFarads],
      ) {
        const none = a.number(0);
        const vgd = a.mul(sense, gd);
        const vgs = a.mul(sense, gs);
        const fromSource = a.max(a.add(vgs, pinchOff), none);
        const fromDrain = a.max(a.add(vgd, pinchOff), none);
        const difference = a.sub(a.mul(fromSource, fromSource), a.mul(fromDrain, fromDrain));
        const lengthen = a.add(a.number(1), a.mul(lambda, a.abs(a.sub(vgs, vgd))));
        const byLength = a.mul(lambda, a.abs(difference));
        const slope = (over: typeof gd) =>
          a.mul(beta, a.add(a.mul(a.add(over, over), lengthen), byLength));
        const channel: Flow<typeof gd> = {
          from: 0,
          to: 2,
          current: a.mul(a.mul(sense, beta), a.mul(difference, lengthen)),
          conductance: [a.neg(slope(fromDrain)), slope(fromSource)],
        };
        const gate = (
          to: number,
          drop: typeof gd,
          volts: typeof gd,
          farads: typeof gd,
          stored: number,
        ): Flow<typeof gd> => {
          const junction = boundedExpLaw(a, a.mul(volts, a.number(1 / THERMAL_VOLTS)));
          const byDrop = (x: typeof gd) => (to === 0 ? [x, undefined] : [undefined, x]);
          return {
            from: 1,
            to,
            current: a.mul(a.mul(sense, amps), junction.excess),
            conductance: byDrop(a.mul(siemens, junction.slope)),
            ...(stored ? { charge: a.mul(farads, drop), capacitance: byDrop(farads) } : {}),
          };
        };
        return [
          channel,
          gate(0, gd, vgd, drainFarads, m.gateDrainFarads),
          gate(2, gs, vgs, sourceFarads, m.gateSourceFarads),
        ];
      },
    },
  ];
}

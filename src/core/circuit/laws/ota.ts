import { THERMAL_VOLTS } from '@/core/constants';
import { BEND_AMPS, type Ota } from '../devices/ota';
import { MOST_MOVE } from './junction';
import type { Arithmetic, Law } from './law';

/** The pair, and its linearising diodes where it has them. */
export function otaLaws({ biasAmps = 0, bias, biasSiemens = 0, diodeAmps }: Ota): Law[] {
  const pair = bias === undefined ? fixedLaw(biasAmps) : controlledLaw(biasSiemens);
  if (diodeAmps === undefined) return [pair];
  return [pair, { ...fixedLaw(diodeAmps / 2), name: 'ota diodes', write: diodesLaw }];
}

/** The difference of the inputs; the pair is steered over by a few thermal voltages. */
const STEERED = { plus: 0, minus: 1, bend: 2 * THERMAL_VOLTS, most: MOST_MOVE };

/** tanh of the input difference and its slope. */
function steer<V>(a: Arithmetic<V>, drop: V): { t: V; slope: V } {
  const perVolt = a.number(1 / (2 * THERMAL_VOLTS));
  const t = a.tanh(a.mul(drop, perVolt));
  return { t, slope: a.mul(a.sub(a.number(1), a.mul(t, t)), perVolt) };
}

const fixedLaw = (amps: number): Law => ({
  name: 'ota',
  drops: [STEERED],
  constants: [amps],
  write(a, [drop], [bias]) {
    const { t, slope } = steer(a, drop);
    return [{ from: -1, to: 0, current: a.mul(bias, t), conductance: [a.mul(bias, slope)] }];
  },
});

/** The linearising diodes take their current from one input to the other. */
const diodesLaw: Law['write'] = (a, [drop], [amps]) => {
  const { t, slope } = steer(a, drop);
  return [{ from: 0, to: 1, current: a.mul(amps, t), conductance: [a.mul(amps, slope)] }];
};

const controlledLaw = (siemens: number): Law => ({
  name: 'ota with a controlled bias',
  drops: [STEERED, { plus: 2, minus: -1, bend: BEND_AMPS / siemens }],
  constants: [siemens],
  write(a, [drop, control], [perVolt]) {
    const { t, slope } = steer(a, drop);
    const raw = a.mul(perVolt, control);
    const root = a.sqrt(a.add(a.mul(raw, raw), a.number(BEND_AMPS * BEND_AMPS)));
    const half = a.number(0.5);
    const bias = a.mul(half, a.add(raw, root));
    const byControl = a.mul(half, a.mul(perVolt, a.add(a.number(1), a.div(raw, root))));
    return [
      {
        from: -1,
        to: 0,
        current: a.mul(bias, t),
        conductance: [a.mul(bias, slope), a.mul(byControl, t)],
      },
    ];
  },
});

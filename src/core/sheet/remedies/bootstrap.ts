import { nearestPreferred } from '@/core/quantity/series';
import type { DrawnPart } from '@/core/drawing/nets';
import { exactValues } from '../exact';
import { freeId, grafted } from '../graft';
import type { Stage } from '../schema';
import { drawnParts, valuesOf, withValue } from '../stage';
import { stageBehind, withChanged, type Complaint, type Remedy } from './remedy';

/** The capacitor follows so far below the lowest frequency of interest. */
const BELOW = 10;

/**
 * The bias resistor of a follower, in two halves whose middle is led along with the signal: with next
 * to no voltage across the upper half it draws next to no current, and looks many times as large.
 */
export const bootstrap: Remedy = {
  id: 'bootstrap',
  treatments(complaint) {
    const stage = stageBehind(complaint);
    const bias = stage && biasOf(stage);
    if (!bias) return [];
    const words = `Bootstrap the bias resistor ${bias.resistor.id} from ${bias.follower.id}`;
    return [{ stages: withChanged(complaint, bootstrapped(stage, bias, complaint)), words }];
  },
};

interface Bias {
  follower: DrawnPart;
  resistor: DrawnPart;
  /** The pin of the resistor at ground. */
  grounded: 'a' | 'b';
}

/** A resistor from the input of a follower to ground that no equation of the stage goes by. */
function biasOf(stage: Stage): Bias | undefined {
  const designed = exactValues(stage) ?? {};
  const parts = drawnParts(stage);
  for (const follower of parts) {
    const { inPlus, inMinus, out } = follower.nets;
    if (follower.kind !== 'op-amp' || inMinus !== out) continue;
    for (const resistor of parts) {
      if (resistor.kind !== 'resistor' || resistor.id in designed) continue;
      const { a, b } = resistor.nets;
      if (a === inPlus && b === '0') return { follower, resistor, grounded: 'b' };
      if (b === inPlus && a === '0') return { follower, resistor, grounded: 'a' };
    }
  }
  return undefined;
}

function bootstrapped(
  stage: Stage,
  { follower, resistor, grounded }: Bias,
  { fromHz }: Complaint,
): Stage {
  const half = nearestPreferred(valuesOf(stage)[resistor.id] / 2, 'E24');
  const split = grafted(stage, {
    do: 'in-line',
    part: resistor.id,
    pin: grounded,
    new: { kind: 'resistor', value: half },
  });
  const halved = withValue(split, resistor.id, half);
  // Both halves lie in parallel for the capacitor.
  const farads = nearestPreferred((2 * BELOW) / (2 * Math.PI * fromHz * half), 'E6');
  const taken = new Set(drawnParts(halved).map((p) => p.id));
  const led = grafted(halved, {
    do: 'between',
    from: { part: resistor.id, pin: grounded },
    to: { part: follower.id, pin: 'out' },
    new: { kind: 'capacitor', value: farads, id: freeId('capacitor', taken) },
  });
  return { ...led, origin: 'hand' };
}

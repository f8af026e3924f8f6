import { ReedError } from '@/core/errors';
import { LEAST_VALUE, MOST_VALUE } from '@/core/circuit/part';
import { mainQuantity } from '@/core/parts/quantities';
import { inWords } from '@/core/quantity/format';
import { valuedParts } from '@/core/topologies/instantiate';
import type { StageAsk, StageChoice, Topology, Values } from '@/core/topologies/topology';
import type { Ask } from './ask';

type PartLimits = NonNullable<Ask['partLimits']>;

/** What the ask says to start from. */
export function choiceOf(ask: Ask): StageChoice {
  return {
    ...(ask.capacitorFarads === undefined ? {} : { farads: ask.capacitorFarads }),
    ...(ask.impedanceOhms === undefined ? {} : { ohms: ask.impedanceOhms }),
  };
}

/** The first value outside what parts there are, in words; none for a stage that can be built. */
function violation(topology: Topology, values: Values, limits: PartLimits): string | undefined {
  for (const { id, kind } of valuedParts(topology)) {
    const value = values[id];
    const capacitor = kind.series === 'capacitors';
    if (!capacitor && kind.series !== 'resistors') continue;
    const [least = 0, greatest = Infinity] = capacitor
      ? [limits.leastFarads, limits.greatestFarads]
      : [limits.leastOhms, limits.greatestOhms];
    const quantity = capacitor ? 'farads' : 'ohms';
    const print = (x: number) => inWords(x, quantity, 3);
    if (value < least * (1 - 1e-9))
      return `${id} ≥ ${print(least)} fails: it would be ${print(value)}`;
    if (value > greatest * (1 + 1e-9))
      return `${id} ≤ ${print(greatest)} fails: it would be ${print(value)}`;
  }
  return undefined;
}

/**
 * A response may ask nothing of a part that a circuit has (a trap, of a shape without zeros), or
 * values that nothing could have.
 *
 * @throws ReedError `design` naming the part
 */
function refuseNothings(topology: Topology, values: Values): void {
  for (const { id, kind } of valuedParts(topology)) {
    const value: number | undefined = values[id];
    if (value >= LEAST_VALUE && value <= MOST_VALUE) continue;
    const what =
      value === undefined || value === 0 || !Number.isFinite(value)
        ? `${id} is left without a value: this response has no use for it. Take the circuit without it, or another one`
        : `${id} would have to be ${inWords(value, mainQuantity(kind)!.quantity, 3)}, which no part has: take an impedance or a capacitor nearer to usual ones`;
    throw new ReedError('design', `${topology.name}: ${what}.`);
  }
}

const DECADES = Array.from({ length: 6 * 7 }, (_, k) => 10e-12 * 10 ** (k / 6));

/**
 * The values of a stage, kept within what parts there are: where the first choice is outside,
 * other capacitors are tried over seven decades.
 *
 * @throws ReedError `design` with the inequality that fails and what would make it possible
 */
export function valuesWithin(
  topology: Topology,
  stage: StageAsk,
  ask: Ask,
): { values: Values; choice: StageChoice } {
  const choice = choiceOf(ask);
  const values = topology.design(stage, choice);
  refuseNothings(topology, values);
  const limits = ask.partLimits;
  const first = limits && violation(topology, values, limits);
  if (!first) return { values, choice };
  const fixed = choice.farads !== undefined;
  const tries = DECADES.flatMap((farads) => {
    const other = { ...choice, farads };
    const found = topology.design(stage, other);
    const fault = violation(topology, found, limits);
    return fault ? [] : [{ values: found, choice: other }];
  });
  const target = Math.log(choice.farads ?? medianCapacitor(topology, values));
  tries.sort(
    (a, b) =>
      Math.abs(Math.log(a.choice.farads) - target) - Math.abs(Math.log(b.choice.farads) - target),
  );
  if (tries.length > 0 && !fixed) return tries[0];
  const remedy =
    tries.length > 0
      ? `Starting from ${inWords(tries[0].choice.farads, 'farads', 3)} it can be built.`
      : 'No capacitor brings every part inside: widen the limits, lower Q or gain, or take another topology.';
  throw new ReedError('design', `${topology.name}: ${first}. ${remedy}`);
}

function medianCapacitor(topology: Topology, values: Values): number {
  const farads = valuedParts(topology)
    .filter(({ kind }) => kind.series === 'capacitors')
    .map(({ id }) => values[id])
    .sort((a, b) => a - b);
  return farads[Math.floor(farads.length / 2)] ?? 10e-9;
}

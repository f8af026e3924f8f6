import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import type { Supply } from '@/core/sheet/schema';
import { aboveCommon, voltsAtRest } from './at-rest';
import type { BenchStep } from './step';

/** What a voltmeter’s leads pick up, and what an ideal op-amp’s offset is taken to be. */
const LEAST_VOLTS = 0.002;
const USUAL_OFFSET = 0.005;
/** A device’s own figures may move its point of rest by this part of it. */
const DEVICES = 0.2;

/**
 * Where the outputs of op-amps and the collectors of transistors should rest without a signal. An
 * offset is as likely of the other sign: each is turned about, and what that does adds up.
 *
 * @param isOwn whether a part is looked at; others keep their offsets
 * @param supply what feeds it, where that is told
 */
export function restChecks(
  circuit: Circuit,
  isOwn: (id: string) => boolean = () => true,
  supply?: Supply,
): BenchStep[] {
  const above = aboveCommon(circuit, supply);
  const looked = circuit.parts.filter(({ id }) => isOwn(id));
  const points = looked.flatMap((p): { part: string; net: string; what: string }[] =>
    p.kind === 'op-amp'
      ? [{ part: p.id, net: p.out, what: 'output' }]
      : p.kind === 'transistor' && p.collector !== circuit.ground
        ? [{ part: p.id, net: p.collector, what: 'collector' }]
        : [],
  );
  const own = withOffsets(circuit);
  const rest = voltsAtRest(own);
  if (!rest || points.length === 0) return [];
  const turned = own.parts
    .filter((p): p is PartOf<'op-amp'> => p.kind === 'op-amp' && isOwn(p.id))
    .map((p) => voltsAtRest(withOffset(own, p.id, -1)))
    .filter((volts) => volts !== undefined);
  const bent = own.parts.some((p) => p.kind === 'transistor' || p.kind === 'diode');
  return points.map(({ part, net, what }) => {
    const volts = rest[net] ?? 0;
    // Half of what an offset makes of it when it is turned about is its own share.
    const shares = turned.map((other) => Math.abs(volts - (other[net] ?? 0)) / 2);
    const reach =
      LEAST_VOLTS + shares.reduce((a, b) => a + b, 0) + (bent ? DEVICES * Math.abs(volts) : 0);
    const lifted = above(net);
    const middle = lifted + (bent ? volts : middleOf(volts, shares));
    const half = lifted > 0 ? lifted * HALVED : 0;
    return {
      id: `rest-${part}`,
      title: `At rest: ${what} of ${part}`,
      detail: `Input joined to common, no signal; the meter against common.${lifted > 0 ? ' Half the supply is counted in.' : ''}`,
      expects: { quantity: 'volts', least: middle - reach - half, most: middle + reach + half },
    };
  });
}

/** What supply and divider may be off by, as a part of half of it. */
const HALVED = 0.06;

/** Where it would rest without any offset. */
const middleOf = (volts: number, shares: readonly number[]): number => {
  const all = shares.reduce((a, b) => a + b, 0);
  return Math.abs(volts) <= all ? 0 : volts - Math.sign(volts) * all;
};

const withOffsets = (circuit: Circuit): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p): Part => {
    if (p.kind !== 'op-amp' || (p.model !== 'ideal' && p.model.offsetVolts)) return p;
    const model = p.model === 'ideal' ? { gainBandwidthHz: 1e7, dcGainDb: 120 } : p.model;
    return { ...p, model: { ...model, offsetVolts: USUAL_OFFSET } };
  }),
});

const withOffset = (circuit: Circuit, id: string, sign: number): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p): Part =>
    p.id === id && p.kind === 'op-amp' && p.model !== 'ideal'
      ? {
          ...p,
          model: {
            ...p.model,
            offsetVolts: sign * (p.model.offsetVolts ?? 0),
            biasAmps: sign * (p.model.biasAmps ?? 0),
          },
        }
      : p,
  ),
});

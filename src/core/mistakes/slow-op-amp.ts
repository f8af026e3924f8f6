import type { Circuit, Part } from '@/core/circuit/schema';
import type { MistakeKind } from './mistake';

/** A slow op-amp is looked for around so many times the highest frequency that was measured. */
const ABOVE = 10;
/** Of one that is described: so much slower than it should be, at first. */
const SLOWER = 10;
const DC_GAIN_DB = 100;

/** An op-amp of another kind than was meant, one or all of them: with too little bandwidth. */
export const slowOpAmp: MistakeKind = {
  kind: 'slow-op-amp',
  *in(circuit, _probe, highestHz) {
    const all = circuit.parts.filter((p) => p.kind === 'op-amp').map((p) => p.id);
    const sets = [...all.map((id) => [id]), ...(all.length > 1 ? [all] : [])];
    for (const parts of sets)
      yield {
        parts,
        circuit: slowed(circuit, parts, highestHz),
        free: { parts, field: 'gainBandwidthHz' },
      };
  },
};

const slowed = (circuit: Circuit, ids: readonly string[], highestHz: number): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p): Part => {
    if (p.kind !== 'op-amp' || !ids.includes(p.id)) return p;
    const { model } = p;
    return {
      ...p,
      model:
        model === 'ideal'
          ? { gainBandwidthHz: ABOVE * highestHz, dcGainDb: DC_GAIN_DB }
          : { ...model, gainBandwidthHz: model.gainBandwidthHz / SLOWER },
    };
  }),
});

import { AcAnalysis } from '@/core/analysis/ac/ac';
import { designCircuit } from '@/core/design/circuit';
import type { Design } from '@/core/design/design';
import { findZero } from '@/core/numeric/root';
import { levelOf } from './exact';
import { closestFit, type Keeping } from './keeping';

/** A pass band this far from the ideal is no longer kept, dB. */
const KEPT_DB = 0.5;
/** The search begins this far above the frequency the ask is about, and goes no further than this. */
const FROM_ABOVE = 1e4;
const MOST = 1e9;
const STEP = 4;

/**
 * The least gain-bandwidth, from which on upwards one-pole op-amps, all alike, keep the pass band
 * within half a decibel of the ideal (and a notch deep): the highest crossing, walked to from above.
 *
 * @returns hertz; null where no bandwidth is enough
 */
export function gainBandwidthNeeded(design: Design, keeping: Keeping): number | null {
  const { circuit } = designCircuit(design, { gainBandwidthHz: 1e6, dcGainDb: 120 });
  const analysis = new AcAnalysis(circuit);
  const own = analysis.system.parameters.flatMap((p, i) =>
    p.name === 'gainBandwidthHz' ? [i] : [],
  );
  const level = levelOf(analysis);
  const missesBy = (logHz: number): number => {
    for (const i of own) analysis.values[i] = Math.exp(logHz);
    analysis.update();
    return closestFit(level, keeping, KEPT_DB);
  };
  const [least, most] = [1 / FROM_ABOVE, MOST].map((x) => Math.log(keeping.middleHz * x));
  let high = Math.log(keeping.middleHz * FROM_ABOVE);
  while (missesBy(high) > 0) if ((high += Math.log(STEP)) > most) return null;
  for (let low = high - Math.log(STEP); low > least; low -= Math.log(STEP)) {
    if (missesBy(low) > 0) return Math.exp(findZero(missesBy, low, high, 1e-4));
    high = low;
  }
  return null;
}

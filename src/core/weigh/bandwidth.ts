import { AcAnalysis } from '@/core/analysis/ac/ac';
import { designCircuit } from '@/core/design/circuit';
import type { Design } from '@/core/design/design';
import { findZero } from '@/core/response/root';
import { levelOf, type ExactDesign } from './exact';
import { closestFit, type Keeping } from './keeping';

/** A pass band this far from the ideal is no longer kept, dB. */
const KEPT_DB = 0.5;
/** The search begins this far above the middle of what is looked at. */
const FROM_ABOVE = 1e7;
const STEP = 4;

/**
 * The least gain-bandwidth, from which on upwards one-pole op-amps, all alike, keep the pass band
 * within half a decibel of the ideal (and a notch deep): the highest crossing, walked to from above.
 *
 * @returns hertz; null where no bandwidth is enough
 */
export function gainBandwidthNeeded(
  design: Design,
  exact: ExactDesign,
  keeping: Keeping,
): number | null {
  const { circuit } = designCircuit(design, { gainBandwidthHz: 1e6, dcGainDb: 120 });
  const analysis = new AcAnalysis(circuit);
  const own = analysis.system.parameters.flatMap((p, i) =>
    p.name === 'gainBandwidthHz' ? [i] : [],
  );
  const level = levelOf(analysis);
  const missesBy = (logHz: number): number => {
    for (const i of own) analysis.values[i] = Math.exp(logHz);
    analysis.update();
    return closestFit(level, exact.level, keeping, KEPT_DB);
  };
  let high = Math.log(keeping.middleHz * FROM_ABOVE);
  if (missesBy(high) > 0) return null;
  const least = Math.log(keeping.middleHz / 1e3);
  for (;;) {
    const low = high - Math.log(STEP);
    if (low < least) return null;
    if (missesBy(low) > 0) return Math.exp(findZero(missesBy, low, high, 1e-5));
    high = low;
  }
}

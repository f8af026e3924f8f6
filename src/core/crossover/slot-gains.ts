import type { Sheet } from '@/core/sheet/schema';
import { netInStage } from '@/core/sheet/nets';
import { heardOf } from '@/core/sheet/stage';
import { AMP_NET } from '@/core/speaker/document';
import type { SolvedSpeaker } from '@/core/speaker/solved-speaker';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { CrossoverDesign } from './crossover-design';

/** What a slot adds to the level of its way, with what it is loaded with. */
export interface SlotGain {
  stage: string;
  db: number;
}

/** The middle of the band of a way, by ratio: between its splits, or out to where the sum is asked for. */
export function middleHz(
  { splitsHz, fromHz, toHz }: Pick<Crossover, 'splitsHz' | 'fromHz' | 'toHz'>,
  way: number,
): number {
  const low = splitsHz[way - 1] ?? Math.min(fromHz, splitsHz[way] ?? fromHz);
  const high = splitsHz[way] ?? Math.max(toHz, low);
  return Math.sqrt(low * high);
}

/**
 * What each slot that is not bypassed adds at the middle of its way's band, by way, from the level at
 * its input to that at its output: what stands behind it counts, as it is in the circuit.
 */
export function slotGains(
  design: Pick<Sheet, 'ways'> & Pick<CrossoverDesign, 'crossover'>,
  speaker: SolvedSpeaker,
): SlotGain[][] {
  return design.ways.map((way, w) => {
    const stages = way.stages.filter((s) => !s.bypassed);
    const nets = stages.map((stage) => netInStage(design, w, stage, heardOf(stage).net));
    const hz = Float64Array.of(middleHz(design.crossover, w));
    const volts = speaker.analysis.voltages([AMP_NET, ...nets], hz);
    const levels = volts.map(({ re, im }) => 20 * Math.log10(Math.hypot(re[0], im[0]) + 1e-15));
    return stages.map((stage, i) => ({ stage: stage.id, db: levels[i + 1] - levels[i] }));
  });
}

import { makeStage } from '@/core/sheet/make';
import type { PartChoices, Stage, Way } from '@/core/sheet/schema';
import { polesOf, type EdgeSlot } from '@/core/slots/section';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { topologyOf } from '@/core/topologies';
import type { StageAsk, StageChoice } from '@/core/topologies/topology';
import type { Hump } from './humps';
import { driverEnd, type CrossoverDesign } from './crossover-design';

/** A stage with op-amps that stands in a way. */
export interface ActiveStage {
  topology: string;
  target: StageAsk;
  /** What its values start from, where that is not the usual. */
  start?: StageChoice;
}

/** Whether a way has an amplifier of its own: what is ahead of it works at line level. */
export const isActive = (way: Way): boolean => driverEnd(way).amplifier !== undefined;

/** Whether any way has an amplifier of its own. */
export const hasAmplifiers = ({ ways }: Pick<CrossoverDesign, 'ways'>): boolean =>
  ways.some(isActive);

/** What is usual for a power amplifier, dB. */
export const USUAL_GAIN_DB = 26;
/** What stands behind an output at line level, ohms. */
export const LINE_OHMS = 100;

/** What an amplifier loads a level trim with. */
const AMPLIFIER_INPUT_OHMS = 10_000;

/** What keeps the sections from the source: a follower. */
export const INPUT_BUFFER: ActiveStage = { topology: 'buffer', target: { f0Hz: 1000 } };

/**
 * A section as stages with op-amps: a pair of poles each, the flattest first so that nothing rings
 * into the next; a single pole behind a follower. A high-pass has the poles of the low-pass, mirrored
 * at its edge.
 *
 * @throws ReedError `design` for an alignment that has no such order
 */
export function activeStages(slot: EdgeSlot): ActiveStage[] {
  const { pass, hz } = slot;
  return [...polesOf(slot)]
    .sort((a, b) => (a.q ?? 0) - (b.q ?? 0))
    .map(({ w0, q }) => {
      const f0Hz = pass === 'low' ? hz * w0 : hz / w0;
      return q === undefined
        ? { topology: `buffered-rc-${pass}-pass`, target: { f0Hz } }
        : { topology: `unity-${pass}-pass`, target: { f0Hz, q } };
    });
}

/** A stage of a topology, its values taken from the sheet's series. */
export const stageOfActive = (
  id: string,
  { topology, target, start }: ActiveStage,
  parts: PartChoices,
  origin: Stage['origin'] = 'hand',
): Stage => makeStage(id, topologyOf(topology), target, parts, origin, start);

/** Which half of the band a section lets through, be it of coils or of op-amps; nothing of other stages. */
export const passOf = ({ slot, topology }: Stage): string | undefined =>
  slot?.is === 'section' ? slot.pass : topology?.match(/(low|high)-pass$/)?.[1];

/** How much a level trim takes, dB; nothing of any other stage. */
export const trimOf = ({ topology, target }: Stage): number =>
  topology === 'l-pad' && target?.gain ? -20 * Math.log10(target.gain) : 0;

/** What takes so much level from a way: two resistors ahead of the amplifier. */
export const levelTrim = (downDb: number): ActiveStage => ({
  topology: 'l-pad',
  target: { f0Hz: 1000, gain: 10 ** (-downDb / 20) },
  start: { ohms: AMPLIFIER_INPUT_OHMS },
});

/**
 * A first-order all-pass that holds low frequencies back by the time sound takes for a distance:
 * it delays by 1/(pi f0) far below f0.
 */
export const allPassFor = (metres: number): ActiveStage => ({
  topology: 'all-pass-first',
  target: { f0Hz: SPEED_OF_SOUND / (Math.PI * metres) },
});

/** What takes a hump down: a dip as deep, whose Q has its width, 2^(o/2)/(2^o - 1). */
export const dipFor = ({ hz, db, octaves }: Hump): ActiveStage => ({
  topology: 'resonator-dip',
  target: {
    f0Hz: hz,
    q: 2 ** (octaves / 2) / (2 ** octaves - 1),
    boost: 10 ** (-db / 20),
  },
});

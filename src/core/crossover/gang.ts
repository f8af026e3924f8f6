import { ReedError } from '@/core/errors';
import { nearestPreferred } from '@/core/quantity/series';
import { withKnob } from '@/core/sheet/knobs/make-knob';
import type { Control, PartChoices, Sheet, Stage, Way } from '@/core/sheet/schema';
import { polesOf, type EdgeSlot } from '@/core/slots/section';
import { activeStages, isActive, stageOfActive, passOf } from './active';
import { sectionsOf } from './make';
import type { CrossoverDesign } from './crossover-design';

/** What one knob is to do. */
export interface GangPlan {
  id: string;
  name: string;
  /** Which split it moves, from the lowest up. */
  split: number;
  /** Whether both ways that meet there follow, or the lower alone as behind a subwoofer’s panel. */
  ways: 'both' | 'lower';
  fromHz: number;
  toHz: number;
}

/** Tracks that are sold, ohms. */
const TRACK_OHMS = 22_000;
/** A stage of equal parts has a Q above this; one of exactly a half has equal parts at a gain of one. */
const LEAST_Q = 0.51;
/** Kept from one another by less than this, poles count as lying at one frequency. */
const SAME = 1e-6;

/**
 * A crossover whose sections at one split are of equal resistors, all of them tracks of one knob: with
 * R = 1/(2 pi f C) every track runs from the resistance of the upper frequency to that of the lower.
 * The track is one that is sold; what stays in line with it, and the capacitors, follow from both ends.
 *
 * @throws ReedError `design` for poles that do not lie at one frequency, or ways that are not of op-amps
 */
export function withGangedEdge<
  D extends Pick<Sheet, 'ways' | 'parts' | 'controls'> & Pick<CrossoverDesign, 'crossover'>,
>(design: D, plan: GangPlan): D {
  const { crossover, parts } = design;
  const { split, fromHz, toHz } = plan;
  if (!(fromHz > 0 && toHz > fromHz * 1.1))
    throw new ReedError(
      'design',
      'The knob’s upper end must lie a tenth above its lower, or more.',
    );
  const follows = (index: number) =>
    index === split || (plan.ways === 'both' && index === split + 1);
  const moves: Control['moves'] = [];
  let at = 0.5;
  const ways = design.ways.map((way, index): Way => {
    if (!follows(index)) return way;
    if (!isActive(way))
      throw new ReedError(
        'design',
        `The way ${way.name} has no amplifier of its own: a knob moves op-amp stages only.`,
      );
    const pass = index === split ? 'low' : 'high';
    const slot = sectionsOf(crossover, index).find((s) => s.pass === pass)!;
    const made = gangedStages(slot, way.stages, plan, parts);
    moves.push(...made.moves.map((move) => ({ ...move, way: way.id })));
    ({ at } = made);
    return { ...way, stages: made.stages };
  });
  const control: Control = { id: plan.id, name: plan.name, is: 'turn', at, moves };
  return { ...design, ways, controls: [...design.controls, control] };
}

function gangedStages(
  slot: EdgeSlot,
  stages: readonly Stage[],
  { fromHz, toHz }: GangPlan,
  parts: PartChoices,
): { stages: Stage[]; moves: Control['moves']; at: number } {
  const { pass } = slot;
  if (polesOf(slot).some(({ w0 }) => Math.abs(w0 - 1) > SAME))
    throw new ReedError(
      'design',
      'The poles of this alignment lie at several frequencies, which equal tracks cannot follow: take Butterworth or Linkwitz-Riley.',
    );
  const farads = capacitorFor(fromHz, toHz, parts);
  const seriesOhms = ohmsAt(toHz, farads);
  const asked = activeStages(slot);
  const old = stages.filter((s) => s.origin === 'ask' && passOf(s) === pass);
  if (old.length !== asked.length)
    throw new ReedError(
      'design',
      'Its stages were changed by hand: ask for the split again, then give it a knob.',
    );
  let at = 0.5;
  const moves: Control['moves'] = [];
  const made = asked.map(({ topology, target }, i) => {
    const { q } = target;
    const own = q !== undefined && q > LEAST_Q ? `equal-part-${pass}-pass` : topology;
    const stage = stageOfActive(old[i].id, { topology: own, target, start: { farads } }, parts);
    const knob = withKnob(stage, {
      as: 'variable',
      parts: q === undefined ? ['R1'] : ['R1', 'R2'],
      trackOhms: TRACK_OHMS,
      seriesOhms: parts.resistors === 'exact' ? seriesOhms : nearestPreferred(seriesOhms, 'E24'),
      // Resistance goes as one over frequency: turned the other way round an audio track is near even.
      taper: 'audio',
      reversed: true,
    });
    ({ at } = knob);
    moves.push(...knob.moves);
    return knob.stage;
  });
  return {
    stages: stages.map((s) => (old.includes(s) ? made[old.indexOf(s)] : s)),
    moves,
    at,
  };
}

const ohmsAt = (hz: number, farads: number): number => 1 / (2 * Math.PI * hz * farads);

/** The capacitor with which the track spans the range: C = (1/f1 - 1/f2)/(2 pi R). */
function capacitorFor(fromHz: number, toHz: number, { capacitors }: PartChoices): number {
  const farads = (1 / fromHz - 1 / toHz) / (2 * Math.PI * TRACK_OHMS);
  return capacitors === 'exact' ? farads : nearestPreferred(farads, capacitors);
}

import { trackPart, type TAPERS } from '@/core/circuit/devices/potentiometer';
import { ReedError } from '@/core/errors';
import { findZero } from '@/core/numeric/root';
import { TRACKS } from '@/core/parts/kinds/potentiometer';
import { inWords } from '@/core/quantity/format';
import { nearestPreferred } from '@/core/quantity/series';
import { freeId, grafted, withDrawing } from '../graft';
import type { Control, Stage } from '../schema';
import { drawingOf, drawnParts, valuesOf } from '../stage';
import { tidied } from '../tidy';

export type Taper = (typeof TAPERS)[number];

/** How a knob is put in the place of resistors. */
export interface KnobPlan {
  /**
   * A variable resistor stands for each of the parts, on one shaft; a divider’s track stands for two
   * that meet, its wiper where they met.
   */
  as: 'variable' | 'divider';
  /** One resistor, or two. */
  parts: readonly string[];
  /** The whole track. */
  trackOhms: number;
  /** What stays in line with it: of a variable resistor at one end, of a divider at both. */
  seriesOhms: number;
  taper: Taper;
  /** How far the second track of a pair runs ahead of the first, as a part of it. */
  mismatch?: number;
  /** Turned up it has less resistance instead of more. */
  reversed?: boolean;
}

/**
 * A stage with a knob for some of its resistors, and what the knob moves. It begins where the stage
 * does what it did before, as far as its travel goes.
 *
 * @throws ReedError `range` naming the part that cannot be turned, and why
 */
export function withKnob(
  stage: Stage,
  plan: KnobPlan,
): { stage: Stage; moves: Control['moves']; at: number } {
  checkPlan(stage, plan);
  const begins = beginningOf(stage, plan);
  const ids: string[] = [];
  let next = stage;
  if (plan.as === 'divider') {
    const put = dividerFor(next, plan);
    next = put.stage;
    ids.push(put.id);
  } else
    for (const part of plan.parts) {
      const put = variableFor(next, part, plan);
      next = put.stage;
      ids.push(put.id);
    }
  const [from, to] = plan.reversed ? [1, 0] : [0, 1];
  const parts = { ...next.parts };
  ids.forEach((id, n) => {
    const more = { turn: begins, ...(n > 0 && plan.mismatch ? { mismatch: plan.mismatch } : {}) };
    parts[id] = { ...parts[id], more };
  });
  return {
    stage: { ...next, parts, origin: 'hand' },
    moves: ids.map((part) => ({ stage: stage.id, part, quantity: 'turn', from, to, law: 'even' })),
    at: plan.reversed ? 1 - begins : begins,
  };
}

/** What is usual for the resistors of a stage: about as much above as below, a tenth left in line. */
export function usualKnob(stage: Stage, part: string): Pick<KnobPlan, 'trackOhms' | 'seriesOhms'> {
  const ohms = valuesOf(stage)[part];
  return {
    trackOhms: nearestPreferred(2 * ohms, 'E3'),
    seriesOhms: nearestPreferred(ohms / 10, 'E12'),
  };
}

/** The resistors that another one meets in a point, as a divider’s two halves do. */
export function partnersOf(stage: Stage, part: string): string[] {
  const resistors = drawnParts(stage).filter((p) => p.kind === 'resistor');
  const own = resistors.find((p) => p.id === part);
  if (!own) return [];
  return resistors.filter((p) => p !== own && meetingNet(own.nets, p.nets)).map((p) => p.id);
}

type Nets = Readonly<Record<string, string>>;

/** The one net that two resistors have in common, but for ground. */
function meetingNet(one: Nets, other: Nets): string | undefined {
  const common = [one.a, one.b].filter(
    (net) => net !== '0' && (net === other.a || net === other.b),
  );
  const across = common.length === 2 || one.a === one.b || other.a === other.b;
  return across ? undefined : common[0];
}

function checkPlan(stage: Stage, { as, parts, trackOhms, seriesOhms }: KnobPlan): void {
  const drawn = drawnParts(stage);
  for (const part of parts)
    if (drawn.find((p) => p.id === part)?.kind !== 'resistor')
      throw new ReedError(
        'range',
        `${part} is no resistor of this stage: a knob takes the place of resistors.`,
      );
  if (new Set(parts).size !== parts.length || parts.length < 1 || parts.length > 2)
    throw new ReedError('range', 'A knob stands for one resistor, or for two.');
  if (!(trackOhms >= 1 && trackOhms <= 1e8))
    throw new ReedError(
      'range',
      `A track of ${inWords(trackOhms, 'ohms')} cannot be had: give 1 Ω to 100 MΩ.`,
    );
  if (!(seriesOhms >= 0 && seriesOhms <= 1e8))
    throw new ReedError('range', 'What stays in line must be 0 to 100 MΩ.');
  if (as === 'divider' && (parts.length !== 2 || !partnersOf(stage, parts[0]).includes(parts[1])))
    throw new ReedError(
      'range',
      `A divider stands for two resistors that meet in one point, and ${parts.join(' and ')} do not.`,
    );
}

/** A track of a taper, by what it is. */
export const trackModelOf = (taper: Taper) => TRACKS.find((t) => t.model.taper === taper)!;

/** A variable resistor in the place of one, with the rest of it in line. */
function variableFor(stage: Stage, part: string, plan: KnobPlan): { stage: Stage; id: string } {
  const { trackOhms, seriesOhms, taper } = plan;
  const id = freePot(stage);
  const swapped = (from: Stage) =>
    grafted(from, {
      do: 'swap',
      part,
      new: { kind: 'potentiometer', id, value: trackOhms, model: trackModelOf(taper) },
    });
  // A crowded drawing may have room for one order of doing it and not for another.
  const made = firstDrawn([
    () => inLine(swapped(stage), id, 'a', seriesOhms),
    () => swapped(inLine(stage, part, 'a', seriesOhms)),
    () => swapped(inLine(stage, part, 'b', seriesOhms)),
    () => drawnWithKnob(stage, part, id, plan),
  ]);
  return { stage: made, id };
}

/** The first of several ways of drawing the same that finds room; the reason of the first where none does. */
function firstDrawn(ways: readonly (() => Stage)[]): Stage {
  let reason: unknown;
  for (const way of ways) {
    try {
      return way();
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      reason ??= error;
    }
  }
  throw reason;
}

/** The whole stage drawn anew, with a variable resistor and what is in line with it for a resistor. */
function drawnWithKnob(stage: Stage, part: string, id: string, plan: KnobPlan): Stage {
  const series = freeId('resistor', new Set(drawnParts(stage).map((p) => p.id)));
  const between = `${id}.between`;
  const drawing = tidied(drawingOf(stage), (parts) =>
    parts.flatMap((p) => {
      if (p.id !== part) return [p];
      const { a, b } = p.nets;
      const end = plan.seriesOhms > 0 ? between : a;
      const pot = { id, kind: 'potentiometer', nets: { a: end, b, wiper: b } };
      return plan.seriesOhms > 0
        ? [{ id: series, kind: 'resistor', nets: { a, b: between } }, pot]
        : [pot];
    }),
  );
  const { trackOhms, seriesOhms, taper } = plan;
  return withDrawing(stage, drawing, {
    ...stage.parts,
    [id]: { value: trackOhms, chosen: 'hand', model: trackModelOf(taper) },
    [series]: { value: seriesOhms, chosen: 'hand' },
  });
}

const drawnAnew = (stage: Stage): Stage =>
  withDrawing(stage, tidied(drawingOf(stage)), stage.parts);

/** One track in the place of two resistors, its wiper where they met. */
function dividerFor(
  stage: Stage,
  { parts: [upper, lower], trackOhms, seriesOhms, taper }: KnobPlan,
): { stage: Stage; id: string } {
  const drawn = drawnParts(stage);
  const [one, other] = [upper, lower].map((p) => drawn.find((d) => d.id === p)!.nets);
  const meets = meetingNet(one, other)!;
  const end = (part: string, nets: Nets) => ({ part, pin: nets.a === meets ? 'b' : 'a' });
  const id = freePot(stage);
  const put = grafted(stage, {
    do: 'put',
    ends: {
      a: endOrGround(end(upper, one), one),
      b: endOrGround(end(lower, other), other),
      wiper: { part: upper, pin: one.a === meets ? 'a' : 'b' },
    },
    new: { kind: 'potentiometer', id, value: trackOhms, model: trackModelOf(taper) },
  });
  const bare = [upper, lower].reduce((s, part) => grafted(s, { do: 'remove', part }), put);
  const ended = (s: Stage) => inLine(inLine(s, id, 'a', seriesOhms), id, 'b', seriesOhms);
  return { stage: firstDrawn([() => ended(bare), () => ended(drawnAnew(bare))]), id };
}

const endOrGround = (place: { part: string; pin: string }, nets: Nets) =>
  nets[place.pin] === '0' ? ('ground' as const) : place;

const freePot = (stage: Stage): string =>
  freeId('potentiometer', new Set(drawnParts(stage).map((p) => p.id)));

/** A resistor in line with one end of a part; none where it would have no resistance. */
export function inLine(stage: Stage, part: string, pin: string, ohms: number): Stage {
  if (ohms === 0) return stage;
  return grafted(stage, { do: 'in-line', part, pin, new: { kind: 'resistor', value: ohms } });
}

/** The place of the shaft at which the resistance, or the division, is as it was before. */
function beginningOf(stage: Stage, plan: KnobPlan): number {
  const [first, second] = plan.parts.map((p) => valuesOf(stage)[p]);
  const { trackOhms, seriesOhms } = plan;
  const wanted =
    plan.as === 'variable'
      ? (first - seriesOhms) / trackOhms
      : ((first / (first + second)) * (trackOhms + 2 * seriesOhms) - seriesOhms) / trackOhms;
  return turnFor(wanted, plan.taper);
}

/** Where a shaft stands for a part of its track. */
export function turnFor(part: number, taper: Taper): number {
  if (!(part > 0)) return 0;
  if (part >= 1) return 1;
  const off = (turn: number) => trackPart({ taper, turn, mismatch: 0 }).part - part;
  return Number(findZero(off, 0, 1, 1e-6).toFixed(4));
}

import { makeStage } from '@/core/sheet/make';
import { designedAs, drawnParts, valuesOf, withValues } from '@/core/sheet/stage';
import type { PartChoices, Stage } from '@/core/sheet/schema';
import { edit } from '@/store/sheet-session';
import { withStage } from './within';

type Target = NonNullable<Stage['target']>;

/** A stage with values for other figures; how it is wired, heard and bypassed stays. */
function redesigned(
  stage: Stage,
  target: Target,
  start: { farads?: number; ohms?: number },
  parts: PartChoices,
  origin: Stage['origin'],
): Stage {
  const topology = designedAs(stage);
  if (!topology) return stage;
  const made = makeStage(stage.id, topology, target, parts, origin, start);
  // Parts that were taken out since stay out; those that were put in keep their values.
  const drawn = new Set(drawnParts(stage).map((p) => p.id));
  const values = Object.entries(valuesOf(made)).filter(([id]) => drawn.has(id));
  const { name, drawing, heard, bypassed } = stage;
  return withValues(
    {
      ...made,
      bypassed,
      parts: stage.parts,
      ...(name === undefined ? {} : { name }),
      ...(drawing ? { drawing } : {}),
      ...(heard === undefined ? {} : { heard }),
    },
    Object.fromEntries(values),
  );
}

export type TargetChange = Partial<
  Pick<Target, 'f0Hz' | 'q' | 'gain' | 'boost' | 'depth' | 'zeroHz'>
>;

/** Change what one stage is designed for; it no longer follows the ask. */
export function retargetStage(
  id: string,
  change: TargetChange & { own?: Record<string, number> },
  group?: string,
): void {
  edit(
    (c) =>
      withStage(c, id, (s) => {
        if (!s.target) return s;
        const own = change.own ? { ...s.target.own, ...change.own } : s.target.own;
        const target = moveMany({ ...s.target, ...change, ...(own ? { own } : {}) }, s.target.f0Hz);
        return redesigned(s, target, { farads: s.farads, ohms: s.ohms }, c.parts, 'hand');
      }),
    group,
  );
}

/** A stage of many poles is moved as a whole. */
function moveMany(target: Target, fromHz: number): Target {
  const factor = target.f0Hz / fromHz;
  if (!target.poles || factor === 1) return target;
  return {
    ...target,
    poles: target.poles.map((p) => ({ ...p, f0Hz: p.f0Hz * factor })),
    ...(target.zerosHz ? { zerosHz: target.zerosHz.map((z) => z * factor) } : {}),
  };
}

/** Start a stage's values from another capacitor or impedance level; empty for the usual one. */
export function changeStart(id: string, start: { farads?: number; ohms?: number }): void {
  edit((c) =>
    withStage(c, id, (s) => (s.target ? redesigned(s, s.target, start, c.parts, s.origin) : s)),
  );
}

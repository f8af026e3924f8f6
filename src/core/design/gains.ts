import { ReedError } from '@/core/errors';
import type { Topology } from '@/core/topologies/topology';
import { liftsByGain, type Ask } from './ask';
import { magnitudeOf, type Section, type Sections } from './sections';

/** A section with the topology that makes it, and the gain asked of it (none: as it comes). */
export interface Placed {
  section: Section;
  topology: Topology;
  gain: number | undefined;
}

/** |section| at its highest, over unit gain. */
function peakOf(list: readonly Section[]): number {
  const f = list.map((s) => s.figures.f0Hz);
  const [from, to] = [Math.min(...f) / 20, Math.max(...f) * 20];
  let top = 0;
  for (let k = 0; k <= 240; k++)
    top = Math.max(top, magnitudeOf(list, from * (to / from) ** (k / 240)));
  for (const hz of f) top = Math.max(top, magnitudeOf(list, hz));
  return top;
}

const signOf = (t: Topology) => (t.gain === 'inverting' ? -1 : 1);
const clamp = (x: number, [least, greatest]: readonly [number, number]) => {
  const [a, b] = [
    Math.min(Math.abs(least), Math.abs(greatest)),
    Math.max(Math.abs(least), Math.abs(greatest)),
  ];
  return Math.min(b, Math.max(a, x));
};

/**
 * Share the asked level among the stages.
 *
 * Low-pass and high-pass: evenly among the stages that can have gain. Anything with band-pass or
 * notch sections: so that every inner node peaks as high as the output, stage by stage.
 *
 * @throws ReedError `design` when no stage can make up what is asked
 */
export function withGains(
  ask: Ask,
  all: Sections,
  chosen: readonly Omit<Placed, 'gain'>[],
): { placed: Placed[]; notes: string[] } {
  const wanted = liftsByGain(ask.kind) || ask.gainDb === undefined ? 1 : 10 ** (ask.gainDb / 20);
  const needed = wanted * all.level;
  const free = chosen.filter(
    (c) => c.topology.gain === 'settable' || c.topology.gain === 'inverting',
  );
  const plain = chosen.every(
    (c) => c.section.kind === 'low-pass' || c.section.kind === 'high-pass',
  );
  if (free.length === 0) return fixedGains(ask, all, chosen, plain);
  if (ask.gainDb === undefined && plain && !chosen.some((c) => c.topology.gain === 'given'))
    return {
      placed: chosen.map((c) => ({ ...c, gain: asItComes(c.topology) })),
      notes: crestNote(all),
    };

  // What stages without a choice give already.
  const given = chosen.reduce((g, c) => g * (free.includes(c) ? 1 : ownGain(c)), 1);
  let left = needed / given;
  const notes: string[] = [];
  const gains = new Map<Omit<Placed, 'gain'>, number>();
  if (plain || ask.kind === 'all-pass' || liftsByGain(ask.kind)) {
    const each = left ** (1 / free.length);
    for (const c of free) gains.set(c, each);
  } else {
    equalPeaks(chosen, free, left, gains);
  }
  left = [...gains].reduce((g, [c, gain]) => g / clamp(gain, c.topology.limits.gain), left);
  const placed = chosen.map((c): Placed => {
    const gain = gains.get(c);
    if (gain === undefined) return { ...c, gain: undefined };
    return {
      ...c,
      gain: signOf(c.topology) * hfOf(c.section) * clamp(gain, c.topology.limits.gain),
    };
  });
  const [worst] = free;
  if (Math.abs(Math.log(left)) > 1e-9) {
    // Some stage met its limit: let the others make up for it.
    for (const p of placed) {
      if (p.gain === undefined || Math.abs(Math.log(left)) < 1e-12) continue;
      const now = Math.abs(p.gain);
      const next = clamp(now * left, p.topology.limits.gain);
      left *= now / next;
      p.gain = Math.sign(p.gain) * next;
    }
  }
  if (Math.abs(Math.log(left)) > 1e-9)
    throw new ReedError(
      'design',
      `${worst.topology.name}: a gain of ${(20 * Math.log10(wanted)).toFixed(2)} dB shared among ${free.length} stages lies outside what they can have (${worst.topology.limits.gain.join(' to ')} each). Leave the gain as it comes, ask for another, or take another topology.`,
    );
  return { placed, notes };
}

/** Stage gains that let every inner node peak as high as the output. */
function equalPeaks(
  chosen: readonly Omit<Placed, 'gain'>[],
  free: readonly Omit<Placed, 'gain'>[],
  left: number,
  gains: Map<Omit<Placed, 'gain'>, number>,
): void {
  const top = peakOf(chosen.map((c) => c.section)) * left;
  let sofar = 1;
  const before: Section[] = [];
  for (const c of chosen) {
    before.push(c.section);
    if (!free.includes(c)) continue;
    const last = c === free[free.length - 1];
    const gain = last ? left / sofar : top / (sofar * peakOf(before));
    const real = clamp(gain, c.topology.limits.gain);
    gains.set(c, real);
    sofar *= real;
  }
}

/** A high-pass notch is counted far above, its circuit at d.c. */
const hfOf = ({ kind, figures }: Section) => (kind === 'notch' ? figures.gain : 1);

/** What a stage that has no choice gives, over a section of unit gain. */
function ownGain({ topology, section }: Omit<Placed, 'gain'>): number {
  if (topology.gain === 'unity') return hfOf(section) === 1 ? 1 : 1 / hfOf(section);
  const { f0Hz, q } = section.figures;
  const figures = topology.figures(
    topology.design({ ...section.figures, gain: undefined, f0Hz, q }),
  );
  return Math.abs(figures.gain);
}

const asItComes = (t: Topology) =>
  t.gain === 'settable' ? undefined : t.gain === 'inverting' ? -1 : 1;

/** Even orders that ripple start below their crests. */
function crestNote({ level, atHz }: Sections): string[] {
  const crest = -20 * Math.log10(level);
  return crest > 1e-9
    ? [
        `Far ${atHz === 'high' ? 'above' : 'below'} the edge the level is the stages’ own gain; the ripple’s crests stand ${crest.toFixed(2)} dB above that.`,
      ]
    : [];
}

function fixedGains(
  ask: Ask,
  all: Sections,
  chosen: readonly Omit<Placed, 'gain'>[],
  plain: boolean,
): { placed: Placed[]; notes: string[] } {
  const total = chosen.reduce((g, c) => g * ownGain(c), 1);
  const db = 20 * Math.log10(total);
  if (!liftsByGain(ask.kind) && ask.gainDb !== undefined && Math.abs(ask.gainDb - db) > 1e-6)
    throw new ReedError(
      'design',
      total === 1
        ? `${chosen[0].topology.name}: its gain is fixed at 0 dB and ${ask.gainDb} dB was asked. Ask for 0 dB, or take stages with settable gain.`
        : `${chosen[0].topology.name}: these stages give ${db.toFixed(2)} dB and ${ask.gainDb} dB was asked. Leave the gain as it comes, or take stages with settable gain.`,
    );
  const notes = plain ? crestNote(all) : [];
  if (notes.length === 0 && Math.abs(db) > 1e-6)
    notes.push(`The stages give ${db.toFixed(2)} dB as they come.`);
  return {
    placed: chosen.map((c) => ({ ...c, gain: c.topology.gain === 'unity' ? 1 : undefined })),
    notes,
  };
}

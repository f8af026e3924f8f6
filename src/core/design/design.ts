import { ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { findZero } from '@/core/numeric/root';
import { size } from '@/core/numeric/complex';
import { centreOfPoles } from '@/core/topologies/figures';
import { buffer } from '@/core/topologies/single/buffer';
import {
  transferOf,
  type StageAsk,
  type StageChoice,
  type Topology,
  type Values,
} from '@/core/topologies/topology';
import { edgeOf, hasShape, mainHz, type Ask } from './ask';
import { choiceOf, valuesWithin } from './choice';
import { sectionTopologies, topologyFor, usual, wholeTopology } from './choose';
import { withGains, type Placed } from './gains';
import { limitsNote } from './limits';
import { ordered } from './order-sections';
import { sectionsOf, type Sections } from './sections';

export interface DesignedStage {
  topology: Topology;
  ask: StageAsk;
  choice: StageChoice;
  values: Values;
}

export interface Design {
  stages: DesignedStage[];
  /** The prototype's order, where the ask left it to its limits. */
  order: number;
  /** What the person should know about it, in sentences. */
  notes: string[];
}

/**
 * From a wanted response to stages with exact values: prototype, frequency transformation, poles
 * paired with zeros, sections put in order, a topology for each, gains shared, values.
 *
 * @throws ReedError `design` saying which wish cannot be met and what would make it possible
 */
export function designAsk(ask: Ask): Design {
  const all = sectionsOf(ask);
  const notes = [...all.notes];
  if (!ask.limits) notes.push(...conventionNotes(ask));
  const whole = wholeTopology(ask, all);
  if (whole) return { ...wholeDesign(ask, all, whole, notes), order: all.order };

  const sections = ordered(all.sections, ask.sectionOrder ?? 'lowest-q');
  const chosen = sections.map((section) => ({ section, topology: topologyFor(ask, section, all) }));
  const { placed, notes: gainNotes } = feasible(ask, all, withGains(ask, all, chosen));
  notes.push(...gainNotes);
  const stages = placed.flatMap(({ section, topology, gain }, i): DesignedStage[] => {
    const stageAsk: StageAsk = { ...section.figures, gain };
    if (stageAsk.zeroHz !== undefined && Math.abs(stageAsk.zeroHz / stageAsk.f0Hz - 1) < 1e-12)
      delete stageAsk.zeroHz;
    const stage = { topology, ask: stageAsk, ...valuesWithin(topology, stageAsk, ask) };
    notes.push(...ownQNote(ask, stage));
    // A network without an op-amp must not be loaded by the stage behind it.
    return topology.opAmps === 0 && i < placed.length - 1 ? [stage, follower()] : [stage];
  });
  if (stages.length > placed.length)
    notes.push('Buffers stand behind the passive stages, which would load each other.');
  const inverted = stages.reduce((s, x) => s * Math.sign(x.topology.figures(x.values).gain), 1) < 0;
  if (inverted) notes.push('The output is turned over in polarity.');
  return { stages, order: all.order, notes };
}

/**
 * What a circuit with a Q of its own says where another was asked; a shape cannot be made of it.
 *
 * @throws ReedError `design` where the ask has a shape
 */
function ownQNote(ask: Ask, { topology, ask: { q: asked }, values }: DesignedStage): string[] {
  const { q, depth } = topology.figures(values);
  if (asked === undefined || q === undefined || Math.abs(q / asked - 1) < 1e-6) return [];
  const [own, wanted] = [q, asked].map((x) => formatQuantity(x, 'ratio', { digits: 3 }));
  if (hasShape(ask.kind))
    throw new ReedError(
      'design',
      `${topology.name}: its Q of ${own} follows from its form, and the ${ask.kind} needs ${wanted}; take a circuit whose Q can be set.`,
    );
  const bottom =
    depth === undefined
      ? ''
      : ` and leaves ${formatFixed(20 * Math.log10(depth), 1)} dB at its centre`;
  return [`The circuit’s own Q is ${own}${bottom}; the asked ${wanted} needs another circuit.`];
}

/**
 * Not every circuit can have the gain that was shared out to it. Where nobody asked for it, the best
 * of those that can takes its place.
 */
function feasible(
  ask: Ask,
  all: Sections,
  first: ReturnType<typeof withGains>,
): ReturnType<typeof withGains> {
  const holds = (t: Topology, { section, gain }: Placed) =>
    t.holds?.({ ...section.figures, gain }) ?? true;
  if (ask.topology !== undefined || first.placed.every((p) => holds(p.topology, p))) return first;
  const instead = (p: Placed): Topology =>
    holds(p.topology, p)
      ? p.topology
      : usual(
          ask,
          p.section,
          all,
          sectionTopologies(p.section).filter((t) => holds(t, p)),
        );
  return withGains(
    ask,
    all,
    first.placed.map((p) => ({ section: p.section, topology: instead(p) })),
  );
}

function follower(): DesignedStage {
  const topology = buffer;
  const ask = { f0Hz: 1000, gain: 1 };
  return { topology, ask, choice: {}, values: topology.design(ask) };
}

/** One topology for the whole response. */
function wholeDesign(
  ask: Ask,
  all: Sections,
  topology: Topology,
  notes: string[],
): Omit<Design, 'order'> {
  if (topology.ownShape) {
    const stage = ownShapeStage(ask, topology);
    return {
      stages: [stage],
      notes: [
        ...notes.filter((n) => !all.notes.includes(n)),
        `The shape is the network’s own; only its edge is set. The asked ${ask.shape} shape needs an op-amp or coils.`,
        ...ownLimitsNote(ask, stage),
      ],
    };
  }
  const { poles, zerosHz } = all.whole!;
  const wanted = ask.gainDb === undefined ? undefined : 10 ** (ask.gainDb / 20) * all.level;
  const sign = topology.gain === 'inverting' ? -1 : 1;
  const stageAsk: StageAsk = {
    f0Hz: centreOfPoles(poles),
    poles,
    ...(zerosHz.length > 0 ? { zerosHz } : {}),
    gain: wanted === undefined ? undefined : sign * wanted,
  };
  if (topology.gain === 'settable' || topology.gain === 'inverting')
    stageAsk.gain ??= sign * all.level;
  const stage = { topology, ask: stageAsk, ...valuesWithin(topology, stageAsk, ask) };
  const { gain } = topology.figures(stage.values);
  if (topology.gain === 'given' && Math.abs(gain - 1) > 1e-9)
    notes.push(
      `Source and load resistors divide: the pass band lies ${(-20 * Math.log10(gain)).toFixed(2)} dB down at d.c.`,
    );
  if (gain < 0) notes.push('The output is turned over in polarity.');
  return { stages: [stage], notes };
}

/** |H| of a network of its own shape over that of its pass band, which it falls from steadily. */
function ownLevel(topology: Topology, values: Values, edgeHz: number): (hz: number) => number {
  const figures = topology.figures(values);
  const level = (hz: number) => size(transferOf(topology, figures, hz));
  const top = level(edgeHz * (topology.kind === 'low-pass' ? 1e-6 : 1e6));
  return (hz) => level(hz) / top;
}

/** A network of its own shape, moved until its edge (that of the limits, or -3 dB) is where it was asked. */
function ownShapeStage(ask: Ask, topology: Topology): DesignedStage {
  const edgeHz = mainHz(ask);
  const down = ask.limits ? 10 ** (-ask.limits.passDb / 20) : Math.SQRT1_2;
  const level = ownLevel(topology, topology.design({ f0Hz: edgeHz }, choiceOf(ask)), edgeHz);
  const found = Math.exp(
    findZero(
      (u) => level(Math.exp(u)) - down,
      Math.log(edgeHz * 1e-3),
      Math.log(edgeHz * 1e3),
      1e-14,
    ),
  );
  const stageAsk: StageAsk = { f0Hz: (edgeHz * edgeHz) / found };
  return { topology, ask: stageAsk, ...valuesWithin(topology, stageAsk, ask) };
}

function ownLimitsNote({ limits }: Ask, { topology, values }: DesignedStage): string[] {
  if (!limits || !('passHz' in limits)) return [];
  const reached = -20 * Math.log10(ownLevel(topology, values, limits.passHz)(limits.stopHz));
  return [limitsNote('It', reached, limits.stopDb)];
}

const EDGE_WORDS = {
  'half-power': 'The edge is where the level is 3.01 dB down.',
  'half-voltage': 'The edge is where the level is 6.02 dB down.',
  ripple: 'The edge is where the level leaves the ripple.',
  asymptote: 'The edge is where the asymptotes meet.',
  'unit-delay': 'The edge is one over 2π times the delay.',
} as const;

/** What the asked frequencies mean; always said. */
function conventionNotes(ask: Ask): string[] {
  switch (ask.kind) {
    case 'notch':
      return ['Q is the centre over the width between the two points 3.01 dB down.'];
    case 'peak':
      return ['Q is the centre over the width at half the height in dB.'];
    case 'low-shelf':
    case 'high-shelf':
      return ['The edge is where half the height in dB is reached.'];
    case 'tilt':
      return [
        'The level turns about the edge: half the height above it on one side, half below on the other.',
      ];
    default:
      return shapeNotes(ask);
  }
}

function shapeNotes(ask: Ask): string[] {
  if (ask.kind === 'all-pass')
    return [
      'The edge is where the phase has turned by 90 degrees for each order, half of its whole turn.',
    ];
  if (edgeOf(ask) === 'ripple' && ask.shape === 'inverse-chebyshev')
    return ['The edge is where the stop band begins.'];
  return [EDGE_WORDS[edgeOf(ask)]];
}

import type { Part } from '@/core/circuit/schema';
import { UNIT_SOURCE } from '@/core/circuit/unit-source';
import { ReedError } from '@/core/errors';
import { outNet, prefixOf } from '@/core/sheet/nets';
import { placedWays, SOURCE_OHMS } from '@/core/sheet/path-circuit';
import type { Way, WayEnd } from '@/core/sheet/schema';
import type { DriverModel } from '@/core/parts/kinds/driver';
import {
  AMP_NET,
  GROUND_NET,
  unitFault,
  type SpeakerDocument,
  type Unit,
} from '@/core/speaker/document';
import { MIDDLE } from '@/core/speaker/place';
import { remembered } from '@/core/speaker/unit';
import { couplingParts } from './board/couplings';
import { driverEnd, type CrossoverDesign, type DriverEnd } from './crossover-design';
import { quoted } from '@/core/text';

const OPEN_END: WayEnd = { is: 'load', name: '', ohms: null, farads: null };

/** What stands for the true units: nothing, or the resistances that sections are designed for. */
export type Load = 'true' | 'nominal';

/**
 * A crossover as a speaker: its network as built, its units and where they are. With nominal loads
 * every unit is a resistance that sounds alike at all frequencies, all of them at one place.
 *
 * @throws ReedError `circuit` for a driver that is not at hand, or of which too little is known
 */
export function speakerOf(
  design: CrossoverDesign,
  load: Load = 'true',
  title = '',
): SpeakerDocument {
  const { surroundings, board } = design.crossover;
  const open = { ...design, ways: design.ways.map((way) => ({ ...way, to: OPEN_END })) };
  const { circuit } = placedWays(open, [...design.ways.keys()], 'built');
  const begin = design.source.ohms > 0 ? 'source' : 'in';
  const network = circuit.parts
    .filter(({ id }) => id !== UNIT_SOURCE.id && id !== SOURCE_OHMS)
    .map((part) => renamed(part, begin, AMP_NET));
  const connections = design.ways.map((way, i) => {
    const { amplifier, inverted } = driverEnd(way);
    const out = withoutStages(way) && !amplifier ? AMP_NET : outNet(design, i);
    const net = amplifier ? `${prefixOf(design, i)}amplified` : out;
    if (amplifier) network.push(...amplifierParts(prefixOf(design, i), out, net, amplifier));
    return {
      driver: way.id,
      plus: inverted ? GROUND_NET : net,
      minus: inverted ? net : GROUND_NET,
    };
  });
  return {
    format: 'jaunty-reed/speaker',
    version: 1,
    title,
    drive: { volts: design.source.volts, sourceOhms: design.source.ohms },
    drivers: design.ways.map((way, i) =>
      load === 'true' ? trueUnit(way) : nominalUnit(way.id, design.crossover.nominalOhms[i]),
    ),
    network: [
      ...network.filter((part) => !(isStraight(part) && part.plus === part.minus)),
      ...(board?.coupled && load === 'true' ? couplingParts(design) : []),
    ],
    connections,
    listen: design.crossover.listen,
    // A textbook knows of none.
    ...(surroundings && load === 'true' ? { surroundings } : {}),
  };
}

const withoutStages = ({ stages }: Way) => stages.every((s) => s.bypassed);
const isStraight = (part: Part): part is Extract<Part, { kind: 'voltage-source' }> =>
  part.kind === 'voltage-source';

/** A part with one of its nets under another name. */
const renamed = (part: Part, from: string, to: string): Part =>
  Object.fromEntries(
    Object.entries(part).map(([field, value]) => [
      field,
      field !== 'id' && field !== 'kind' && value === from ? to : (value as unknown),
    ]),
  ) as unknown as Part;

function amplifierParts(
  prefix: string,
  from: string,
  to: string,
  { gainDb, ohms }: NonNullable<DriverEnd['amplifier']>,
): Part[] {
  const inner = `${prefix}amplifier`;
  const gain = 10 ** (gainDb / 20);
  const out = ohms > 0 ? inner : to;
  const amplifier: Part = {
    id: `${prefix}amplifier`,
    kind: 'voltage-amplifier',
    plus: out,
    minus: GROUND_NET,
    inPlus: from,
    inMinus: GROUND_NET,
    gain,
  };
  if (!(ohms > 0)) return [amplifier];
  return [amplifier, { id: `${prefix}amplifier.ohms`, kind: 'resistor', a: inner, b: to, ohms }];
}

/** Units as they are solved, by the ends they stand in: what was made of one is found again by it. */
const units = new WeakMap<WayEnd, Unit>();
const trueUnit = (way: Way): Unit => remembered(units, way.to, () => unitOf(way));

function unitOf(way: Way): Unit {
  const { model, name, place = MIDDLE } = driverEnd(way);
  if (model === undefined)
    throw new ReedError(
      'circuit',
      `The loudspeaker ${quoted(name)} is not among the drivers of this browser: import the file it came with, or choose another.`,
    );
  const unit: Unit = { id: way.id, name, ...(model as DriverModel), place };
  const fault = unitFault(unit);
  if (fault)
    throw new ReedError(
      'circuit',
      `Of the loudspeaker ${quoted(name)} it is not known how it sounds: ${quoted(fault.path.slice(1))} ${fault.message}.`,
    );
  return unit;
}

/** A resistance that sounds alike at all frequencies. */
const nominalUnit = (id: string, ohms: number): Unit => ({
  id,
  name: '',
  ideal: { ohms, levelDb: NOMINAL_DB },
  place: MIDDLE,
  directivity: 'even',
});

/** Level of a unit that is as good as any other, at one metre. */
const NOMINAL_DB = 86;

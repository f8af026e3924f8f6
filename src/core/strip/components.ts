import { deviceOf } from '@/core/circuit/devices';
import type { Circuit, Part } from '@/core/circuit/schema';
import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import type { Component, FootprintName } from './board';

/** More than that is no small board. */
export const MOST_PARTS = 60;

type Pins = Component['pins'];

/** What stands on a board, by kind of part; what is not here is no part that can be soldered. */
const FOOTPRINT: Readonly<Record<string, FootprintName>> = {
  resistor: 'two wires',
  capacitor: 'two wires',
  inductor: 'two wires',
  diode: 'two wires',
  switch: 'two wires',
  transistor: 'three in line',
  jfet: 'three in line',
  potentiometer: 'three apart',
  photocell: 'four in line',
  'op-amp': 'eight in two rows',
  ota: 'eight in two rows',
};

/** The usual pins of one amplifier in a case of eight: they differ, and its maker's sheet decides. */
const EIGHT = ['', 'inMinus', 'inPlus', 'supplyMinus', 'bias', 'out', 'supplyPlus', ''];

/** Nets of supplies that a circuit takes for granted. */
const PLUS = 'V+';
const MINUS = 'V−';

export interface BoardRequest {
  /** Parts that are not on the board: what drives it, and what it drives. */
  beyond: ReadonlySet<string>;
  /** Nets that wires lead to, besides supplies, and what those wires are called. */
  outside: ReadonlyMap<string, string>;
}

/**
 * What is to be put on a board, and the wires that lead to it: one from each outside net, each supply
 * and ground.
 *
 * @throws ReedError `circuit` for a part that is an idea and none that can be soldered, or for too many
 */
export function componentsOf(circuit: Circuit, { beyond, outside }: BoardRequest): Component[] {
  const components: Component[] = [];
  const pads = new Map(outside);
  for (const part of circuit.parts) {
    if (beyond.has(part.id)) continue;
    if (part.kind === 'voltage-source' || part.kind === 'current-source') {
      // What drives it from outside gives its wire its name.
      for (const net of Object.values(deviceOf(part.kind).terminals(part)))
        if (!pads.has(net)) pads.set(net, [...pads.values()].includes(part.id) ? net : part.id);
      continue;
    }
    const footprint = FOOTPRINT[part.kind];
    if (!footprint)
      throw new ReedError(
        'circuit',
        `${quoted(part.id)} is an ideal ${part.kind}: nothing that can be soldered. Put a real part in its place.`,
        { part: part.id },
      );
    const pins = footprint === 'eight in two rows' ? eightPins(part) : plainPins(part);
    for (const { name, net } of pins)
      if (/^(supply|bias)/.test(name) && !net.startsWith('free ')) pads.set(net, net);
    components.push({ id: part.id, footprint, pins });
  }
  if (components.length > MOST_PARTS)
    throw new ReedError(
      'circuit',
      `${components.length} parts are more than a small board holds: ${MOST_PARTS} at most. Plan it stage by stage.`,
    );
  pads.set(circuit.ground, 'ground');
  return [
    ...components,
    ...[...pads].map(([net, word]): Component => ({
      id: `wire ${word}`,
      footprint: 'pad',
      pins: [{ name: 'wire', net }],
    })),
  ];
}

const plainPins = (part: Part): Pins =>
  Object.entries(deviceOf(part.kind).terminals(part)).map(([name, net]) => ({ name, net }));

function eightPins(part: Part): Pins {
  const terminals = deviceOf(part.kind).terminals(part);
  const usual: Record<string, string> = {
    supplyPlus: PLUS,
    supplyMinus: MINUS,
    ...(part.kind === 'ota' && part.biasAmps !== undefined ? { bias: `${part.id} bias` } : {}),
  };
  return EIGHT.map((name, k) => ({
    name: name || `pin ${k + 1}`,
    net: terminals[name] ?? usual[name] ?? `free ${part.id} ${k + 1}`,
  }));
}

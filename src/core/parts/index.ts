import { amplifier } from './kinds/amplifier';
import { capacitor } from './kinds/capacitor';
import { coupledCoils } from './kinds/coupled-coils';
import { diode, lightEmittingDiode } from './kinds/diode';
import { driver } from './kinds/driver';
import { gangedPotentiometer } from './kinds/ganged-potentiometer';
import { inductor } from './kinds/inductor';
import { nJfet, pJfet } from './kinds/jfet';
import { opAmp } from './kinds/op-amp';
import { ota } from './kinds/ota';
import { photocell } from './kinds/photocell';
import { potentiometer } from './kinds/potentiometer';
import { resistor } from './kinds/resistor';
import { currentSource, source } from './kinds/source';
import { supply } from './kinds/supply';
import { switchKind } from './kinds/switch';
import { npnTransistor, pnpTransistor } from './kinds/transistor';
import { transconductor } from './kinds/transconductor';
import type { PartKind } from './part-kind';

/** Every kind of part, as lists offer them. A new kind is one file and one line here. */
export const PART_KINDS: readonly PartKind[] = [
  resistor,
  capacitor,
  inductor,
  coupledCoils,
  potentiometer,
  gangedPotentiometer,
  opAmp,
  transconductor,
  ota,
  diode,
  lightEmittingDiode,
  npnTransistor,
  pnpTransistor,
  nJfet,
  pJfet,
  photocell,
  switchKind,
  supply,
  source,
  currentSource,
  amplifier,
  driver,
];

const BY_KIND = new Map(PART_KINDS.map((k) => [k.kind, k]));

export const hasPartKind = (kind: string): boolean => BY_KIND.has(kind);

/** The kind of a part in a document that may name anything. */
export const findPartKind = (kind: string): PartKind | undefined => BY_KIND.get(kind);

/** The kind of a drawn part; drawings are checked when they are read, so it is known. */
export function partKindOf(kind: string): PartKind {
  const found = BY_KIND.get(kind);
  if (!found) throw new RangeError(`No kind of part is called “${kind}”.`);
  return found;
}

/** “a resistor”, “an op-amp”. */
export const withArticle = ({ article, noun }: PartKind): string => `${article} ${noun}`;

/** The next free name of a kind, counted through letter by letter: R1, R2, C1. */
export function numberedName(counts: Map<string, number>, kind: string): string {
  const { letter } = partKindOf(kind);
  const n = (counts.get(letter) ?? 0) + 1;
  counts.set(letter, n);
  return `${letter}${n}`;
}

/** The two pins that “across it” means; the same twice for a part with a single end. */
export function acrossPins({ across, symbol: { pins } }: PartKind): readonly [string, string] {
  return across ?? [pins[0].name, (pins[1] ?? pins[0]).name];
}

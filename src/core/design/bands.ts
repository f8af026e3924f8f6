import type { Band } from '@/core/response/landmarks';
import type { ReadingContext } from '@/core/response/reader';
import { bandOf, centreOf, mainHz, type Ask } from './ask';

/** What an ask wants passed and stopped; open ends are zero and infinity. */
export interface AskBands {
  /** One band, or two about what is stopped; everything for kinds that neither pass nor stop. */
  pass: Band[];
  /** Where it must be down: from its limits, or from an octave beyond its edges; empty where nothing is stopped. */
  stop: Band[];
  /** Whether the stop band is that of limits. */
  limited: boolean;
}

const below = (toHz: number): Band => ({ fromHz: 0, toHz });
const above = (fromHz: number): Band => ({ fromHz, toHz: Infinity });
const between = (fromHz: number, toHz: number): Band => ({ fromHz, toHz });

/** The pass and stop bands of an ask. */
export function bandsOf(ask: Ask): AskBands {
  return ask.limits ? limitBands(ask) : edgeBands(ask);
}

function limitBands({ kind, limits }: Ask): AskBands {
  const l = limits!;
  if ('passHz' in l)
    return kind === 'low-pass'
      ? { pass: [below(l.passHz)], stop: [above(l.stopHz)], limited: true }
      : { pass: [above(l.passHz)], stop: [below(l.stopHz)], limited: true };
  const inner = [between(l.passLowerHz, l.passUpperHz), between(l.stopLowerHz, l.stopUpperHz)];
  return kind === 'band-pass'
    ? { pass: [inner[0]], stop: [below(l.stopLowerHz), above(l.stopUpperHz)], limited: true }
    : { pass: [below(l.passLowerHz), above(l.passUpperHz)], stop: [inner[1]], limited: true };
}

function edgeBands(ask: Ask): AskBands {
  const hz = mainHz(ask);
  switch (ask.kind) {
    case 'low-pass':
      return { pass: [below(hz)], stop: [above(hz * 2)], limited: false };
    case 'high-pass':
      return { pass: [above(hz)], stop: [below(hz / 2)], limited: false };
    case 'band-pass':
    case 'wide-band': {
      const { lowerHz, upperHz } = bandOf(ask);
      return {
        pass: [between(lowerHz, upperHz)],
        stop: [below(lowerHz / 2), above(upperHz * 2)],
        limited: false,
      };
    }
    case 'band-stop': {
      const { lowerHz, upperHz } = bandOf(ask);
      // What an octave is to the prototype is half of the width to the band it becomes.
      return {
        pass: [below(lowerHz), above(upperHz)],
        stop: [aboutCentre(hz, (upperHz - lowerHz) / 2)],
        limited: false,
      };
    }
    case 'notch': {
      const { lowerHz, upperHz } = bandOf(ask);
      return { pass: [below(lowerHz), above(upperHz)], stop: [], limited: false };
    }
    default:
      return { pass: [{ fromHz: 0, toHz: Infinity }], stop: [], limited: false };
  }
}

/** The band of a width in hertz whose edges lie geometrically about a centre. */
export function aboutCentre(centreHz: number, widthHz: number): Band {
  const { lowerHz, upperHz } = bandOf({ centreHz, q: centreHz / widthHz });
  return between(lowerHz, upperHz);
}

/** How far inside its band a filter is taken to pass its signal unturned. */
const INSIDE = 10;

/** What an ask says about the readings of a response made for it. */
export function readingContextOf(ask: Ask): ReadingContext {
  const { pass } = bandsOf(ask);
  const hz = mainHz(ask);
  switch (ask.kind) {
    case 'low-pass':
      return { pass, phaseFromHz: [hz / INSIDE] };
    case 'high-pass':
      return { pass, phaseFromHz: [hz * INSIDE] };
    case 'band-pass':
    case 'wide-band':
      return { pass, phaseFromHz: [hz], phaseFromMiddle: true };
    case 'notch':
    case 'band-stop':
      return { pass, phaseFromHz: [pass[0].toHz / INSIDE, pass[1].fromHz * INSIDE] };
    case 'all-pass': {
      // It turns by less than its whole turn at any distance: from far below.
      const centre = ask.q === undefined ? hz : centreOf(ask).centreHz;
      return { pass: [], phaseFromHz: [centre / INSIDE ** 2] };
    }
    default:
      return { pass: [], phaseFromHz: [hz / INSIDE ** 2] };
  }
}

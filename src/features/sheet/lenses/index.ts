import type { Sheet } from '@/core/sheet/schema';
import { bias } from './bias';
import { control } from './control';
import { delay } from './delay';
import { difference } from './difference';
import { drive } from './drive';
import { harmonics } from './harmonics';
import { headroom } from './headroom';
import { impedance } from './impedance';
import type { Lens } from './lens';
import { level } from './level';
import { map } from './map';
import { noise } from './noise';
import { phase } from './phase';
import { rest } from './rest';
import { scope } from './scope';
import { time } from './time';
import { travel } from './travel';

/** The lenses of a path, the usual ones first; their keys are their places. One file and one line each. */
export const LENSES: readonly Lens[] = [
  level,
  phase,
  delay,
  time,
  harmonics,
  map,
  rest,
  difference,
  impedance,
  noise,
  headroom,
  travel,
  control,
  scope,
  drive,
  bias,
];

/** Those of a voltage-controlled filter begin with what its control does, and with its levels. */
const USUAL_OF_VOICE: readonly Lens[] = [
  control,
  level,
  harmonics,
  scope,
  drive,
  rest,
  time,
  phase,
];
const OF_VOICE: readonly Lens[] = [
  ...USUAL_OF_VOICE,
  ...LENSES.filter((l) => !USUAL_OF_VOICE.includes(l)),
];

/** Those of a transistor stage begin with how it rests. */
const USUAL_OF_TRANSISTORS: readonly Lens[] = [bias, level, scope, drive, rest, impedance, noise];
const OF_TRANSISTORS: readonly Lens[] = [
  ...USUAL_OF_TRANSISTORS,
  ...LENSES.filter((l) => !USUAL_OF_TRANSISTORS.includes(l)),
];

/** The lenses of a sheet, the usual ones of its kind first. */
export const lensesOf = (sheet: Pick<Sheet, 'ways' | 'controls'>): readonly Lens[] =>
  sheet.ways[0].stages.some((s) => s.bias) ? OF_TRANSISTORS : isVoice(sheet) ? OF_VOICE : LENSES;

/** Whether a sheet is a voltage-controlled filter. */
export const isVoice = ({ ways: [way], controls }: Pick<Sheet, 'ways' | 'controls'>): boolean =>
  way.stages.some((s) => s.cell !== undefined) || controls.some((c) => c.for === 'cut-off');

/** So many stand in a row and answer to a digit; the others are behind “more”. */
export const IN_ROW = 9;

/** The lens that a document names; the first where this program has none of that name. */
export const lensOf = (id: string): Lens => LENSES.find((l) => l.id === id) ?? LENSES[0];

/** Names the tabs of the lenses and, after them, the panel of the picture. */
export const LENS_BAR = 'lens';

/** What makes an element the panel of a lens's tab. */
export const panelOf = ({ id }: Lens) => ({
  role: 'tabpanel',
  id: `${LENS_BAR}-panel-${id}`,
  'aria-labelledby': `${LENS_BAR}-tab-${id}`,
});

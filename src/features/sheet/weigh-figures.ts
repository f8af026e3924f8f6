import type { AskKind } from '@/core/design/ask';
import { PART_KINDS } from '@/core/parts';
import type { PartKind } from '@/core/parts/part-kind';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { costOf, type Prices } from '@/core/weigh/prices';
import type { WeighRow } from '@/core/weigh/weigh';

/** Figures that are looked at together, where not all have room. */
export type ColumnGroup = 'parts' | 'response' | 'practice';
export const COLUMN_GROUPS: { value: ColumnGroup; label: string }[] = [
  { value: 'parts', label: 'Parts' },
  { value: 'response', label: 'Response' },
  { value: 'practice', label: 'In practice' },
];

/** What a row is judged by, as the table shows it. */
export interface WeighFigure {
  group: ColumnGroup;
  title: string;
  /** What it is and where it is taken. */
  help: (kind: AskKind | 'limits') => string;
  value: (row: WeighRow, prices: Prices) => number | null;
  print: (x: number, mark: DecimalMark) => string;
  width: number;
  /** Kinds of ask for which it means something; without it, all. */
  kinds?: readonly AskKind[];
}

/** Kinds whose pass band is meant to be even, and those with a stop band. */
const EVEN: AskKind[] = [
  'low-pass',
  'high-pass',
  'band-pass',
  'band-stop',
  'wide-band',
  'all-pass',
];
const STOPPING: AskKind[] = ['low-pass', 'high-pass', 'band-pass', 'band-stop', 'wide-band'];

const SPREAD = 'of boards with 1 % resistors and 5 % other parts';
const NINE_IN_TEN = `${SPREAD}, nine in ten`;

const PASSES = 'within 1 dB of the exact pass band';
const EVERYWHERE = 'within 1 dB of the exact curve everywhere';
/** What a board must do to be counted in the yield. */
const KEEPS: Record<AskKind | 'limits', string> = {
  limits: 'to the limits, with 0.5 dB of room in the pass band and 1 dB in the stop band',
  'low-pass': PASSES,
  'high-pass': PASSES,
  'band-pass': PASSES,
  'wide-band': PASSES,
  'band-stop': PASSES,
  notch:
    'at least 20 dB deep at the asked centre, and within 1 dB where the exact one has lost less than 1 dB',
  peak: EVERYWHERE,
  'low-shelf': EVERYWHERE,
  'high-shelf': EVERYWHERE,
  tilt: EVERYWHERE,
  'all-pass': 'within 1 dB everywhere, and within 10° at the edge',
};

const whole = (x: number) => `${x}`;
const fixed = (digits: number, unit = '') =>
  function print(x: number, mark: DecimalMark) {
    return formatFixed(x, digits, mark) + unit;
  };
const quantity = (kind: 'hertz' | 'seconds' | 'volts') =>
  function print(x: number, mark: DecimalMark) {
    return formatQuantity(x, kind, { digits: 2, unit: true, mark });
  };
const percent = (part: number | null) => (part === null ? null : part * 100);

const plural = ({ noun }: PartKind) => `${noun}s`;

/** How many parts of some kinds a design has. */
const countOf = (title: string, kinds: readonly PartKind[], width: number): WeighFigure => ({
  group: 'parts',
  title,
  help: () => capital(kinds.map(plural).join(', and ')),
  value: ({ counts }) => kinds.reduce((sum, { kind }) => sum + counts[kind], 0),
  print: whole,
  width,
});

/** Everything that amplifies together, then what is bought by series, kind by kind. */
const DESIGNED = PART_KINDS.filter((k) => k.inDesigns);
const AMPLIFYING = DESIGNED.filter((k) => k.series === null);
const COUNTS: readonly WeighFigure[] = [
  countOf(capital(plural(AMPLIFYING[0])), AMPLIFYING, 74),
  ...DESIGNED.filter((k) => k.series !== null).map((k) => countOf(k.letter, [k], 52)),
];

/** Every figure of the table, in the order of its columns. */
export const FIGURES: readonly WeighFigure[] = [
  ...COUNTS,
  {
    group: 'practice',
    title: 'Worst Q',
    help: () => 'The highest stage Q',
    value: (r) => r.worstQ,
    print: fixed(2),
    width: 68,
  },
  {
    group: 'practice',
    title: 'Bandwidth',
    help: () =>
      'Least gain-bandwidth of the op-amps that keeps the pass band within 0.5 dB of the ideal (and a notch 20 dB deep)',
    value: (r) => r.gainBandwidthHz,
    print: quantity('hertz'),
    width: 86,
  },
  {
    group: 'response',
    title: 'Ripple dB',
    help: () => 'Highest less lowest level over the pass band, its edges included',
    value: (r) => r.rippleDb,
    print: fixed(2),
    width: 80,
    kinds: EVEN,
  },
  {
    group: 'response',
    title: 'Stops dB',
    help: () =>
      'Least attenuation under the pass band’s highest: over the whole stop band, or from an octave beyond the edge (of a band-stop, over the middle half of its width)',
    value: (r) => r.attenuationDb,
    print: fixed(1),
    width: 76,
    kinds: STOPPING,
  },
  {
    group: 'response',
    title: 'Delay ±',
    help: () => 'Longest less shortest group delay over the pass band',
    value: (r) => r.delayVariationSeconds,
    print: quantity('seconds'),
    width: 78,
    kinds: EVEN,
  },
  {
    group: 'response',
    title: 'Width',
    help: () => 'Between the two points half the power down, with exact parts',
    value: (r) => r.widthHz,
    print: quantity('hertz'),
    width: 80,
    kinds: ['notch'],
  },
  {
    group: 'practice',
    title: 'Depth dB',
    help: () => `At the asked centre; ${NINE_IN_TEN} reach it`,
    value: (r) => r.depthDb,
    print: fixed(1),
    width: 76,
    kinds: ['notch'],
  },
  {
    group: 'practice',
    title: 'Height ±',
    help: () => `How far the height is off, dB; ${NINE_IN_TEN} stay within`,
    value: (r) => r.heightErrorDb,
    print: fixed(2),
    width: 74,
    kinds: ['peak'],
  },
  {
    group: 'practice',
    title: 'Width ±',
    help: () => `How far the width at half the height is off; ${NINE_IN_TEN} stay within`,
    value: (r) => percent(r.widthError),
    print: fixed(1, ' %'),
    width: 74,
    kinds: ['peak'],
  },
  {
    group: 'practice',
    title: 'At edge ±',
    help: () => `How far the level at the edge is off, dB; ${NINE_IN_TEN} stay within`,
    value: (r) => r.edgeErrorDb,
    print: fixed(2),
    width: 80,
    kinds: ['low-shelf', 'high-shelf', 'tilt'],
  },
  {
    group: 'practice',
    title: 'Phase ±',
    help: () => `How far the phase at the edge is off; ${NINE_IN_TEN} stay within`,
    value: (r) => r.phaseErrorDegrees,
    print: fixed(1, '°'),
    width: 74,
    kinds: ['all-pass'],
  },
  {
    group: 'response',
    title: 'Noise',
    help: () => 'At the output, 20 Hz to 20 kHz, with the sheet’s op-amp (an ideal one adds none)',
    value: (r) => r.outputNoiseVolts,
    print: quantity('volts'),
    width: 74,
  },
  {
    group: 'practice',
    title: 'dB per %',
    help: () => 'What one per cent of the worst part does in the pass band',
    value: (r) => r.sensitivity.dbPerPercent,
    print: fixed(3),
    width: 72,
  },
  {
    group: 'practice',
    title: 'Inner peak',
    help: () =>
      'Highest output of any inner op-amp or transconductor over the path’s own highest, dB',
    value: (r) => r.innerPeakDb,
    print: fixed(1),
    width: 80,
  },
  {
    group: 'practice',
    title: 'Yield',
    help: (kind) => `${capital(SPREAD)}, those that keep to the ask: ${KEEPS[kind]}`,
    value: (r) => percent(r.yield),
    print: fixed(0, ' %'),
    width: 62,
  },
  {
    group: 'parts',
    title: 'Cost',
    help: () => 'Parts at the prices above',
    value: (r, prices) => costOf(r.counts, prices),
    print: fixed(2),
    width: 64,
  },
];

function capital(words: string): string {
  return words[0].toUpperCase() + words.slice(1);
}

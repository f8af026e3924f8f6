import type { StockEntry } from '@/core/library/stock';
import { partKindOf } from '@/core/parts';
import { mainQuantity } from '@/core/parts/quantities';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { PartsLine } from '@/core/sheet/parts-list';
import type { Orientation } from './orientation';
import type { BenchStep } from './step';

/**
 * In which order parts are soldered: what lies flat first, what heat and static harm last. Each with
 * what is to be minded of it.
 */
const ORDER: readonly { kinds: readonly string[]; id: string; title: string; mind: string }[] = [
  {
    id: 'resistors',
    kinds: ['resistor'],
    title: 'Resistors',
    mind: 'Measure each before it goes in; they lie either way round.',
  },
  {
    id: 'diodes',
    kinds: ['diode', 'light-emitting-diode'],
    title: 'Diodes',
    mind: 'The ring is the cathode: compare each with the drawing before it is soldered.',
  },
  {
    id: 'sockets',
    kinds: ['op-amp', 'ota', 'transconductor'],
    title: 'Sockets for the amplifiers',
    mind: 'Notch as on the drawing; the amplifiers themselves stay out until the rails are right.',
  },
  {
    id: 'capacitors',
    kinds: ['capacitor'],
    title: 'Capacitors',
    mind: 'Film and ceramic lie either way round.',
  },
  {
    id: 'transistors',
    kinds: ['npn-transistor', 'pnp-transistor', 'transistor', 'jfet', 'n-jfet', 'p-jfet'],
    title: 'Transistors',
    mind: 'Makers order the legs differently: look at your maker’s sheet.',
  },
  {
    id: 'coils',
    kinds: ['inductor', 'coupled-coils'],
    title: 'Coils',
    mind: 'Keep coils apart, or at right angles, that should not share their fields.',
  },
  {
    id: 'controls',
    kinds: ['potentiometer', 'ganged-potentiometer', 'photocell', 'switch'],
    title: 'Potentiometers and controls',
    mind: 'Turn each to its middle, and see which end is which.',
  },
];

/**
 * Steps of soldering, from what a board needs and where in the drawer it lies.
 *
 * @param lying which way round parts lie
 */
export function solderSteps(
  lines: readonly PartsLine[],
  drawer: readonly StockEntry[],
  mark: DecimalMark,
  lying: Orientation = {},
): BenchStep[] {
  const known = new Set(ORDER.flatMap((o) => o.kinds));
  const groups = [
    ...ORDER,
    {
      id: 'others',
      kinds: [...new Set(lines.map((l) => l.kind))].filter((kind) => !known.has(kind)),
      title: 'What is left',
      mind: 'See which way round each belongs.',
    },
  ];
  return groups.flatMap(({ id, kinds, title, mind }, i): BenchStep[] => {
    const own = lines.filter((l) => kinds.includes(l.kind));
    if (own.length === 0) return [];
    const listed = own.map((line) => lineWords(line, drawer, mark)).join('; ');
    const round = lying[id as keyof Orientation];
    const cautions = [
      ...(i === 0 ? [IRON] : []),
      ...(id === 'capacitors' && round?.includes('plus') ? [BURSTS] : []),
    ];
    return [
      {
        id: `solder-${id}`,
        title,
        detail: `${listed}. ${mind}${round === undefined ? '' : ` ${round}.`}`,
        ...(cautions.length > 0 ? { caution: cautions.join(' ') } : {}),
      },
    ];
  });
}

const IRON =
  'The iron burns and flux fumes irritate: solder in moving air, wear glasses when you cut leads, wash your hands.';

const BURSTS = 'An electrolytic the wrong way round bursts: look twice at its stripe.';

/** “2 of 10k: R1, R2 (row 2)”. */
function lineWords(line: PartsLine, drawer: readonly StockEntry[], mark: DecimalMark): string {
  const main = mainQuantity(partKindOf(line.kind));
  const value =
    line.value === undefined || !main
      ? (line.device ?? partKindOf(line.kind).noun)
      : formatQuantity(line.value, main.quantity, { digits: 3, mark });
  const places = new Set(
    drawer.flatMap((e) => (line.stock.includes(e.id) && e.place ? [e.place] : [])),
  );
  const where = places.size > 0 ? ` (${[...places].join(', ')})` : '';
  return `${line.each} of ${value}: ${line.names.join(', ')}${where}`;
}

import type { Sheet } from '@/core/sheet/schema';
import { formatQuantity, inWords } from '@/core/quantity/format';
import { nearestPreferred } from '@/core/quantity/series';
import { driverEnd, type CrossoverDesign } from '../crossover-design';
import { boardOf } from './layout';

/** A step of building, with a caution where one belongs. */
export interface BuildStep {
  id: string;
  text: string;
  caution?: string;
}

/** What protects the uppermost driver in first tests passes only what lies above so much of its split. */
const PROTECTED_BELOW = 0.25;

/** How a passive board is built and first tried, in order, with its own parts and values. */
export function buildSteps(design: Pick<Sheet, 'ways'> & CrossoverDesign): BuildStep[] {
  const { board, parts } = boardOf(design);
  const { splitsHz, nominalOhms } = design.crossover;
  const named = (kind: string) => parts.filter((p) => p.kind === kind).map((p) => p.name);
  const [coils, resistors] = [named('inductor'), named('resistor')];
  const mm = (metres: number) => Math.round(1000 * metres);
  const top = design.ways.length - 1;
  const low = PROTECTED_BELOW * (splitsHz[top - 1] ?? 2000);
  const farads = nearestPreferred(1 / (2 * Math.PI * low * nominalOhms[top]), 'E6');
  const list = (names: readonly string[]) => names.join(', ');
  return [
    {
      id: 'lay',
      text: `Lay all parts out dry on a board of ${mm(board.widthMetres)} by ${mm(board.heightMetres)} mm, as the picture has them, and mark where they lie.`,
    },
    ...(coils.length > 0
      ? [
          {
            id: 'coils',
            text: `Tie the coils ${list(coils)} down first, each with its axis as in the picture: ties of nylon, no steel screw through or near a coil.`,
          },
        ]
      : []),
    {
      id: 'bus',
      text: 'Run one thick bare wire along the foot of the board as the common return: every end that goes to the amplifier’s minus is soldered to it, and nowhere else.',
      caution: 'Solder in moving air: the fumes of flux irritate, and the iron burns.',
    },
    ...design.ways.flatMap((way, w) => {
      const row = parts.filter((p) => p.way === w).map((p) => p.name);
      return row.length === 0
        ? []
        : [
            {
              id: `way-${way.id}`,
              text: `Join the ${way.name} way from the amplifier to its driver: ${list(row)}.`,
            },
          ];
    }),
    ...(resistors.length > 0
      ? [
          {
            id: 'resistors',
            text: `Raise the resistors ${list(resistors)} some millimetres off the board, away from wires and capacitors.`,
            caution: 'They get hot enough to burn skin and to char wood when it is loud.',
          },
        ]
      : []),
    {
      id: 'shorts',
      text: 'Without an amplifier, measure the resistance at its terminals: it is that of the lowest way’s coils and voice coil, and never near zero.',
      caution:
        'A short ruins an amplifier at once. Let capacitors discharge before you touch them.',
    },
    {
      id: 'polarity',
      text: `Mark plus on every driver: ${design.ways
        .map((way) => `${way.name} ${driverEnd(way).inverted ? 'turned over' : 'as it is'}`)
        .join(
          ', ',
        )}. A battery of 1.5 V held for a moment to a bass driver moves its cone outwards at plus.`,
    },
    {
      id: 'first',
      text: `For the first test put a capacitor of ${formatQuantity(farads, 'farads', { unit: true })} in line with ${driverEnd(design.ways[top]).name}: it passes little below ${inWords(low, 'hertz', 2)} should something be wrong.`,
      caution:
        'Begin with the level all the way down, ears away from the drivers. Sweeps that sound soft at first grow loud at resonances; long loud ones harm hearing.',
    },
    {
      id: 'compare',
      text: 'Measure the impedance at the terminals and compare it with the lens, before it is loud.',
    },
  ];
}

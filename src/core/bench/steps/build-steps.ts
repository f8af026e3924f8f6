import type { StockEntry } from '@/core/library/stock';
import type { Pause } from '@/core/lenses/layers';
import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { partsList, type PartsLine } from '@/core/sheet/parts-list';
import { REFERENCE_FARADS, REFERENCE_OHMS } from '@/core/sheet/reference-net';
import type { Sheet } from '@/core/sheet/schema';
import {
  bareCircuit,
  boardCircuit,
  otherWayOf,
  shownName,
  type SheetBoard,
} from '../board-circuit';
import { meetingIn } from '../compare';
import { deadChecks } from './dead-checks';
import { orientationOf } from './orientation';
import { LAST } from './reading-steps';
import { restChecks } from './rest-checks';
import { solderSteps } from './solder';
import type { BenchStep } from './step';
import { sweepStep } from './sweep-step';

export interface StepsInput {
  sheet: Sheet;
  board: SheetBoard | undefined;
  drawer: readonly StockEntry[];
  mark: DecimalMark;
}

/** What makes half of a single supply is soldered as well. */
const REFERENCE: readonly string[] = [...REFERENCE_OHMS, REFERENCE_FARADS];
/** Rails that are usual where a sheet says nothing. */
const USUAL_RAILS = 15;
/** What a supply may be off by. */
const RAIL_TOLERANCE = 0.05;
/** Less than this between rails is a short, or a part the wrong way round. */
const RAILS_APART_OHMS = 1000;

/**
 * How a board of a sheet is built and tried, in order: soldering, checks without power, power without
 * amplifiers, points at rest, the sweep, and only then ears. What is read of it stands in between: `withForeseen`.
 *
 * @throws ReedError as solving the sheet’s first way
 */
export async function buildSteps(
  { sheet, board, drawer, mark }: StepsInput,
  pause: Pause,
): Promise<BenchStep[]> {
  const own = boardCircuit(sheet, board, drawer);
  const { circuit, probe, rules } = own;
  const hasAmplifiers = circuit.parts.some((p) => p.kind === 'op-amp' || p.kind === 'ota');
  const hasDevices =
    hasAmplifiers || circuit.parts.some((p) => p.kind === 'transistor' || p.kind === 'jfet');
  await pause();
  const isOwn = (id: string) => !otherWayOf(sheet, id);
  const rest = restChecks(circuit, isOwn, sheet.parts.supply);
  const lying = orientationOf(
    circuit,
    (id) => isOwn(id) && (!own.fixed.has(id) || REFERENCE.includes(id)),
    meetingIn(circuit, own.fixed),
    { mark, supply: sheet.parts.supply },
  );
  await pause();
  return [
    ...solderSteps(partsOf(sheet), drawer, mark, lying),
    {
      id: 'inspect',
      title: 'Look at every joint',
      detail: 'In good light, with a glass: bridges, joints without solder, legs in wrong holes.',
    },
    ...deadChecks(bareCircuit(own), probe, rules),
    ...(hasDevices ? powerSteps(sheet, hasAmplifiers, mark) : []),
    ...rest,
    await sweepStep(sheet, own, mark, pause),
    {
      id: LAST,
      title: 'Listen, quietly at first',
      detail: 'Through something that you can turn down at once; then clean the flux off.',
      caution: 'Turn down before you plug in; flux remover wants moving air and no flame.',
    },
  ];
}

/** What is soldered: of a bank one channel, of a crossover all ways, under the names that stand in words. */
const partsOf = (sheet: Sheet): PartsLine[] =>
  partsList(sheet.bank ? { ...sheet, ways: [sheet.ways[0]] } : sheet).lines.map((line) => ({
    ...line,
    names: line.names.map((name) => shownName(sheet, name)),
  }));

function powerSteps(sheet: Sheet, hasAmplifiers: boolean, mark: DecimalMark): BenchStep[] {
  const { supply } = sheet.parts;
  const single = supply?.is === 'single';
  const volts = supply?.volts ?? USUAL_RAILS;
  const print = (v: number) => formatQuantity(v, 'volts', { digits: 3, unit: true, mark });
  const rails = single
    ? `${print(volts)} against common`
    : `+${print(volts)} and −${print(volts)} against common`;
  return [
    {
      id: 'rails-apart',
      title: 'No power: the supply rails apart',
      detail: 'From rail to rail and from each to common; it may climb while capacitors charge.',
      expects: { quantity: 'ohms', least: RAILS_APART_OHMS, most: Infinity },
    },
    {
      id: 'rails',
      title: `Power, ${hasAmplifiers ? 'amplifiers still out' : 'current limited'}`,
      detail: `${rails}${hasAmplifiers ? ', at the pins of every socket' : ''}. Use a supply whose current is limited, or a resistor of 100 Ω in each rail.`,
      caution:
        'A reversed supply destroys every device at once, and electrolytics burst: check polarity before you switch on. Work from an isolated low-voltage supply; leave anything with mains in it to qualified people.',
      expects: {
        quantity: 'volts',
        least: volts * (1 - RAIL_TOLERANCE),
        most: volts * (1 + RAIL_TOLERANCE),
      },
    },
    ...(hasAmplifiers
      ? [
          {
            id: 'amplifiers',
            title: 'Power off, amplifiers in',
            detail: 'Notch to notch; feel none of them warm up in the first minute.',
            caution: 'Supply capacitors hold their charge: wait until the rails read nothing.',
          },
        ]
      : []),
  ];
}

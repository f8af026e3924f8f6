import { useMemo } from 'react';
import { hasAmplifiers } from '@/core/crossover/active';
import { drawnNames } from '@/core/crossover/network-drawing';
import type { CrossoverLayer } from '@/core/crossover/picture';
import {
  DIP_UP,
  USUAL_WANTED,
  type CrossoverFigure,
  type CrossoverReadingId,
} from '@/core/crossover/readings';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Crossover } from '@/core/sheet/crossover-schema';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { setUi } from '../sheet/ui-state';
import { changeCrossover } from './actions';
import { usePicture } from './follow';
import table from '../sheet/readings-table.module.css';
import styles from './readings.module.css';

interface Line {
  id: CrossoverReadingId;
  name: string;
  wanted: {
    value: number;
    kind: QuantityKind;
    words: string;
    change: (x: number) => Partial<Crossover>;
  };
  print: (figure: CrossoverFigure) => string;
  /** Whether a figure is as wanted. */
  met: (figure: CrossoverFigure) => boolean;
  /** What is said beside the verdict. */
  more?: (figure: CrossoverFigure) => string;
}

/** What a crossover is judged by: wanted, on nominal loads, built on the true drivers, and kept. */
export function CrossoverReadings({ sheet, crossover }: { sheet: Sheet; crossover: Crossover }) {
  const mark = usePreferences((p) => p.mark);
  const picture = usePicture(sheet.id);
  const names = useMemo(() => drawnNames({ ways: sheet.ways }), [sheet.ways]);
  const layers = picture?.layers ?? [];
  const amplified = hasAmplifiers(sheet);
  // Behind amplifiers of their own no resistor gets hot.
  const lines = linesOf(crossover, mark, (id) => names.get(id) ?? id).filter(
    ({ id }) => id !== 'heat' || !amplified,
  );
  const version = (id: CrossoverLayer['id'], title: string): FigureColumns<Line>[number] => ({
    key: id,
    title,
    align: 'right',
    render: (_, line) => {
      const figure = layers.find((l) => l.id === id)?.figures[line.id];
      return figure ? line.print(figure) : '–';
    },
  });
  const figureOf = (line: Line) => layers.find((l) => l.id === 'built')?.figures[line.id];
  const columns: FigureColumns<Line> = [
    {
      key: 'name',
      title: 'Reading',
      rowScope: 'row',
      render: (_, line) => (
        <button
          type="button"
          className={table.name}
          title="Put the cursor there"
          onClick={() => {
            const atHz = figureOf(line)?.atHz;
            if (atHz !== undefined) setUi({ cursorHz: atHz });
          }}
        >
          {line.name}
        </button>
      ),
    },
    {
      key: 'wanted',
      title: 'wanted',
      align: 'right',
      render: (_, { name, wanted }) => (
        <EditableQuantity
          label={`${name}, wanted`}
          value={wanted.value}
          kind={wanted.kind}
          mark={mark}
          shown={wanted.words}
          onCommit={(x) => changeCrossover(wanted.change(x!))}
        />
      ),
    },
    version('nominal', 'nominal load'),
    version('built', 'true drivers'),
    ...sheet.keeps.filter((k) => k.shown).map((k) => version(`keep:${k.id}`, k.name)),
    {
      key: 'verdict',
      title: 'verdict',
      align: 'right',
      className: table.verdict,
      render: (_, line) => {
        const figure = figureOf(line);
        if (!figure) return null;
        const met = line.met(figure);
        return (
          <span className={met ? table.good : table.bad}>
            {met ? '✓ ' : '✗ '}
            {line.more?.(figure) ?? (met ? 'met' : 'missed')}
          </span>
        );
      },
    },
  ];
  return (
    <section className={`${table.host} ${styles.host}`} aria-label="Readings" data-figures>
      <FigureTable<Line>
        rowKey={({ id }) => id}
        columns={columns}
        lines={lines}
        empty="Nothing is read."
      />
      <p className={styles.caution}>
        Before the first sweep: least load within the amplifier’s rating, a capacitor in line with
        the tweeter, low level, ears away. What is hot or charged stays so for a while.
      </p>
    </section>
  );
}

function linesOf(crossover: Crossover, mark: DecimalMark, nameOf: (id: string) => string): Line[] {
  const { fromHz, toHz, withinDb, leastOhms, splitsHz, loudVolts } = crossover;
  const wanted = { ...USUAL_WANTED, ...crossover.wanted };
  const hz = (x: number) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 2 });
  const db = (x: number, digits = 1) => `${formatFixed(x, digits, mark)} dB`;
  const ohms = (x: number) => formatQuantity(x, 'ohms', { unit: true, mark, digits: 2 });
  const also = (change: Partial<typeof wanted>): Partial<Crossover> => ({
    wanted: { ...crossover.wanted, ...change },
  });
  const at = ({ atHz }: CrossoverFigure) => (atHz === undefined ? '' : ` at ${hz(atHz)}`);
  return [
    {
      id: 'sum',
      name: `On axis, ${hz(fromHz)} to ${hz(toHz)}`,
      wanted: {
        value: withinDb,
        kind: 'decibels',
        words: `within ±${db(withinDb)}`,
        change: (x) => ({ withinDb: x }),
      },
      print: (f) => `±${db(f.value)}`,
      met: (f) => f.value <= withinDb,
    },
    {
      id: 'impedance',
      name: 'Least impedance',
      wanted: {
        value: leastOhms,
        kind: 'ohms',
        words: `at least ${ohms(leastOhms)}`,
        change: (x) => ({ leastOhms: x }),
      },
      print: (f) => `${ohms(f.value)}${at(f)}, ${formatFixed(f.degrees ?? 0, 0, mark)}°`,
      met: (f) => f.value >= leastOhms,
      more: (f) =>
        [
          f.value >= leastOhms ? 'met' : 'too hard a load: the amplifier’s rating comes first',
          ...(f.hardest ? [`as hard as ${ohms(f.hardest.ohms)} at ${hz(f.hardest.atHz)}`] : []),
        ].join('; '),
    },
    ...(splitsHz.length === 0
      ? []
      : [
          {
            id: 'phase' as const,
            name: 'Phase apart where ways meet',
            wanted: {
              value: wanted.phaseApartDegrees,
              kind: 'degrees' as const,
              words: `within ±${formatFixed(wanted.phaseApartDegrees, 0, mark)}°`,
              change: (x: number) => also({ phaseApartDegrees: x }),
            },
            print: (f: CrossoverFigure) => `${formatFixed(f.value, 0, mark)}°${at(f)}`,
            met: (f: CrossoverFigure) => Math.abs(f.value) <= wanted.phaseApartDegrees,
          },
          {
            id: 'null' as const,
            name: 'Null, every second way turned over',
            wanted: {
              value: wanted.nullDb,
              kind: 'decibels' as const,
              words: `at least ${db(wanted.nullDb, 0)}`,
              change: (x: number) => also({ nullDb: x }),
            },
            print: (f: CrossoverFigure) => db(f.value, 0),
            met: (f: CrossoverFigure) => f.value >= wanted.nullDb,
          },
        ]),
    {
      id: 'dip',
      name: `${DIP_UP}° up, worst dip`,
      wanted: {
        value: wanted.dipDb,
        kind: 'decibels',
        words: `at most ${db(wanted.dipDb)}`,
        change: (x) => also({ dipDb: x }),
      },
      print: (f) => `${db(f.value)}${at(f)}`,
      met: (f) => f.value <= wanted.dipDb,
    },
    {
      id: 'heat',
      name: `Hottest resistor at ${formatQuantity(loudVolts, 'volts', { unit: true, mark, digits: 2 })}, music`,
      wanted: {
        value: wanted.resistorWatts,
        kind: 'ratio',
        words: `at most ${formatFixed(wanted.resistorWatts, 1, mark)} W`,
        change: (x) => also({ resistorWatts: x }),
      },
      print: (f) => `${nameOf(f.part ?? '')} ${formatFixed(f.value, 1, mark)} W`,
      met: (f) => f.value <= wanted.resistorWatts,
      more: (f) =>
        `${rating(f.value)} W part, clear of the cabinet wall; a sine makes ${formatFixed(f.sineWatts ?? 0, 0, mark)} W`,
    },
  ];
}

/** Ratings that are sold; twice the heat is asked of one. */
const RATINGS = [1, 2, 5, 10, 20, 50, 100];
const rating = (watts: number): number =>
  RATINGS.find((r) => r >= 2 * watts) ?? Math.ceil(2 * watts);

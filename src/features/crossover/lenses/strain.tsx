import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import type { DriverStrain, StrainPicture } from '@/core/crossover/strain';
import type { PartLoad } from '@/core/crossover/load';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { niceTicks } from '@/ui/chart/axis';
import type { LineLayer } from '@/ui/chart/layers';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { LensState } from '../../sheet/lens-state';
import { useLens } from '../../sheet/use-lens';
import { changeCrossover } from '../actions';
import type { CrossoverLens, CrossoverLensProps } from './lens';
import { line, OverBand, WAY_LOOKS } from './over-band';
import table from '../../sheet/readings-table.module.css';
import styles from '../lens-panel.module.css';

type Shown = 'table' | 'excursion';
const CHOICES = [
  { value: 'table' as const, label: 'Volts and watts' },
  { value: 'excursion' as const, label: 'Cones' },
];

/** What every driver and part bears when it is loud. */
function Picture({ sheet, crossover }: CrossoverLensProps) {
  const mark = usePreferences((p) => p.mark);
  const [shown, show] = useState<Shown>('table');
  const { picture, problem, stale } = useLens(sheet, { lens: 'crossoverStrain' });
  return (
    <div className={styles.stack}>
      <div className={styles.choice}>
        <Segmented<Shown>
          size="small"
          aria-label="Strain of"
          value={shown}
          options={CHOICES}
          onChange={show}
        />
        <span className={styles.model}>
          With{' '}
          <EditableQuantity
            label="Loud, volts"
            value={crossover.loudVolts}
            kind="volts"
            mark={mark}
            shown={formatQuantity(crossover.loudVolts, 'volts', { unit: true, mark, digits: 3 })}
            onCommit={(loudVolts) => changeCrossover({ loudVolts: loudVolts! })}
          />{' '}
          rms: a sine wherever it is worst, or noise shaped like music. Such levels harm hearing.
        </span>
      </div>
      <LensState problem={problem ?? picture?.problem ?? null} stale={stale}>
        <div className={styles.stack}>
          {picture && shown === 'table' && <Loads picture={picture} mark={mark} />}
          {picture && shown === 'excursion' && (
            <Cones picture={picture} sheet={sheet} mark={mark} />
          )}
        </div>
      </LensState>
    </div>
  );
}

interface Line {
  key: string;
  name: string;
  volts: number;
  voltsAtHz: number;
  sineWatts: number;
  sineAtHz: number;
  musicWatts: number;
  verdict: string;
  bad: boolean;
}

function Loads({ picture, mark }: { picture: StrainPicture; mark: DecimalMark }) {
  const hz = (x: number) => formatQuantity(x, 'hertz', { unit: true, mark, digits: 2 });
  const watts = (x: number) => `${formatFixed(x, x < 10 ? 1 : 0, mark)} W`;
  const lines = [
    ...picture.drivers.map((d) => driverLine(d, watts)),
    ...picture.parts.map(partLine),
  ];
  const columns: FigureColumns<Line> = [
    { key: 'name', title: 'Driver or part', rowScope: 'row', render: (_, l) => l.name },
    {
      key: 'volts',
      title: 'most volts, rms',
      align: 'right',
      render: (_, l) =>
        `${formatQuantity(l.volts, 'volts', { unit: true, mark, digits: 3 })} at ${hz(l.voltsAtHz)}`,
    },
    {
      key: 'sine',
      title: 'heat, sine',
      align: 'right',
      render: (_, l) =>
        l.sineWatts > COLD ? `${watts(l.sineWatts)} at ${hz(l.sineAtHz)}` : 'none',
    },
    {
      key: 'music',
      title: 'heat, music',
      align: 'right',
      render: (_, l) => (l.sineWatts > COLD ? watts(l.musicWatts) : 'none'),
    },
    {
      key: 'verdict',
      title: '',
      align: 'right',
      className: table.verdict,
      render: (_, l) => <span className={l.bad ? table.bad : undefined}>{l.verdict}</span>,
    },
  ];
  return (
    <div className={`${table.host} ${styles.table}`}>
      <FigureTable<Line> rowKey={(l) => l.key} columns={columns} lines={lines} empty="Nothing." />
    </div>
  );
}

/** Heat below this is not told, watts. */
const COLD = 0.02;

function driverLine(d: DriverStrain, watts: (x: number) => string): Line {
  const over = d.ratedWatts !== undefined && d.musicWatts > d.ratedWatts;
  return {
    ...d,
    key: d.way,
    verdict:
      d.ratedWatts === undefined
        ? ''
        : over
          ? `over its ${watts(d.ratedWatts)}`
          : `rated ${watts(d.ratedWatts)}`,
    bad: over,
  };
}

const partLine = (p: PartLoad): Line => ({
  ...p,
  key: p.id,
  name: p.id,
  verdict: '',
  bad: false,
});

function Cones({
  picture,
  sheet,
  mark,
}: {
  picture: StrainPicture;
  sheet: Sheet;
  mark: DecimalMark;
}) {
  const layers = useMemo(
    () =>
      picture.drivers.flatMap((d, i): LineLayer[] => {
        if (!d.millimetres) return [];
        const { frequenciesHz: x } = picture;
        const limit = d.ratedMillimetres;
        return [
          line(d.way, d.name, WAY_LOOKS[i], x, d.millimetres),
          ...(limit === undefined
            ? []
            : [
                line(
                  `${d.way} limit`,
                  `what the ${sheet.ways[i]?.name ?? ''} may`,
                  'turned',
                  [x[0], x[x.length - 1]],
                  [limit, limit],
                ),
              ]),
        ];
      }),
    [picture, sheet.ways],
  );
  if (layers.length === 0)
    return (
      <p className={styles.waiting}>
        No driver’s figures are known: how far a cone moves cannot be told.
      </p>
    );
  const top = 1.15 * Math.max(...layers.flatMap((l) => Array.from(l.y)));
  return (
    <>
      <OverBand
        title="Peak movement of the cones over frequency"
        sheet={sheet}
        axis={{ domain: [0, top], ticks: niceTicks(0, top, 6) }}
        unit="mm"
        layers={layers}
        print={(v) => `${formatFixed(v, 2, mark)} mm`}
      />
      <ul className={styles.facts}>
        {picture.drivers.flatMap((d) =>
          d.mostMillimetres !== undefined && d.mostMillimetres > (d.ratedMillimetres ?? Infinity)
            ? [
                <li key={d.way} className={table.bad}>
                  {d.name}: {formatFixed(d.mostMillimetres, 1, mark)} mm at{' '}
                  {formatQuantity(d.mostAtHz!, 'hertz', { unit: true, mark, digits: 2 })} is beyond
                  its {formatFixed(d.ratedMillimetres!, 1, mark)} mm
                </li>,
              ]
            : [],
        )}
      </ul>
    </>
  );
}

export const strain: CrossoverLens = {
  id: 'strain',
  title: 'Strain',
  about: 'Volts, heat and movement of every driver and part when it is loud',
  Picture,
};

import { Select } from 'antd';
import { useMemo, useState } from 'react';
import type { TravelPicture, TravelRow } from '@/core/lenses/travel';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Control, Reading, Sheet } from '@/core/sheet/schema';
import { printMeasured, readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { levelAxis } from '@/ui/chart/axis';
import { LayerKey, type LineLayer } from '@/ui/chart/layers';
import { attempt } from '../shell/tell';
import { setTaper } from './actions/controls';
import { ControlChoice } from './control-choice';
import { KnobReach } from './knob-reach';
import { TAPER_WORDS } from './knob-words';
import { LensState } from './lens-state';
import { useAlike } from './use-alike';
import { OverFrequency } from './over-frequency';
import { useLens } from './use-lens';
import styles from './real-lenses.module.css';

/** What a knob does over its whole travel. */
export function TravelLens({ sheet }: { sheet: Sheet }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { controls } = sheet;
  const control = controls.find((c) => c.id === chosen) ?? controls[controls.length - 1];
  if (!control)
    return (
      <LensState problem={null} stale={false}>
        <div data-picture>
          <p>
            Nothing is turned here yet. Choose a resistor in the circuit and make it a knob: its
            travel is drawn here, with what it does to every reading.
          </p>
        </div>
      </LensState>
    );
  return (
    <Travel
      key={control.id}
      sheet={sheet}
      control={control}
      choose={
        <ControlChoice
          label="Which knob"
          controls={controls}
          value={control.id}
          onChoose={setChosen}
        />
      }
    />
  );
}

/** Whether two states of a sheet have the same travels: all but where the knobs stand bears on them. */
const sameTravel = (a: Sheet, b: Sheet): boolean =>
  (['ways', 'readings', 'source', 'parts', 'view', 'ask'] as const).every((k) => a[k] === b[k]) &&
  JSON.stringify(a.controls.map(unturned)) === JSON.stringify(b.controls.map(unturned));

const unturned = (control: Control) => ({ ...control, at: 0 });

function Travel({
  sheet,
  control,
  choose,
}: {
  sheet: Sheet;
  control: Control;
  choose: React.ReactNode;
}) {
  const settled = useAlike(sheet, sameTravel);
  const { picture, problem, stale } = useLens(settled, { lens: 'travel', control: control.id });
  const [id, setId] = useState<string | null>(null);
  const edge = sheet.readings.find((r) => r.measure.measure === 'edge');
  const reading = sheet.readings.find((r) => r.id === id) ?? edge ?? sheet.readings[0];
  return (
    <LensState problem={problem} stale={stale}>
      {picture && (
        <div className={styles.lens}>
          <div className={styles.head}>
            {choose}
            <span className={styles.key}>
              <LayerKey kind="line" look="input" /> each tenth of the travel of {control.name}
            </span>
            <span className={styles.key}>
              <LayerKey kind="line" look="built" /> nearest to where it stands
            </span>
          </div>
          <Family sheet={sheet} picture={picture} at={control.at} />
          <div className={`${styles.side} ${styles.tall}`}>
            {reading && (
              <Feel
                sheet={sheet}
                control={control}
                picture={picture}
                reading={reading}
                onRead={setId}
              />
            )}
            <Rows sheet={sheet} picture={picture} at={control.at} />
          </div>
        </div>
      )}
    </LensState>
  );
}

/** The place of the travel that is drawn next to where the knob stands. */
const nearestRow = ({ rows }: TravelPicture, at: number): number =>
  Math.round(at * (rows.length - 1));

function Family({
  sheet: { view },
  picture,
  at,
}: {
  sheet: Sheet;
  picture: TravelPicture;
  at: number;
}) {
  const here = nearestRow(picture, at);
  const layers = useMemo<LineLayer[]>(() => {
    const lines = picture.rows.map((row, k): LineLayer => ({
      kind: 'line',
      id: `at ${k}`,
      name: `at ${k * 10} %`,
      look: k === here ? 'built' : 'input',
      x: picture.frequenciesHz,
      y: row.levelDb,
    }));
    return [...lines.filter((_, k) => k !== here), lines[here]];
  }, [picture, here]);
  const y = useMemo(() => {
    const { domain, ticks } = levelAxis(picture.rows.map((r) => r.levelDb));
    return {
      domain,
      ticks: ticks.map((value) => ({ value, text: `${formatFixed(value, 0)} dB` })),
    };
  }, [picture]);
  return (
    <OverFrequency
      title="Level over the travel"
      fromHz={view.fromHz}
      toHz={view.toHz}
      layers={layers}
      y={y}
    />
  );
}

/** Which taper moves a reading most evenly, and how far the travel reaches. */
function Feel({
  sheet,
  control,
  picture,
  reading,
  onRead,
}: {
  sheet: Sheet;
  control: Control;
  picture: TravelPicture;
  reading: Reading;
  onRead: (id: string) => void;
}) {
  const mark = usePreferences((p) => p.mark);
  const tapers = picture.tapers[reading.id] ?? [];
  const moves = tapers.some((t) => t.evenness.steepest !== null);
  return (
    <div className={styles.feel}>
      <div>
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="The reading that is felt"
          value={reading.id}
          options={readingChoices(sheet, mark)}
          onChange={onRead}
        />{' '}
        {moves
          ? 'moves unevenly by track:'
          : picture.taper === null
            ? 'is moved by no track of a potentiometer.'
            : 'is hardly moved by this knob, or has no value somewhere on its travel.'}
      </div>
      {moves && (
        <p
          className={styles.tapers}
          title="How many times an even step the steepest sixteenth of the travel moves it: 1 is perfectly even"
        >
          {tapers.map(({ taper, evenness: { steepest, oneWay } }, n) => (
            <button
              key={taper}
              type="button"
              className={
                taper === picture.taper ? `${styles.choice} ${styles.chosen}` : styles.choice
              }
              aria-pressed={taper === picture.taper}
              onClick={() => attempt(() => setTaper(control.id, taper))}
            >
              {TAPER_WORDS[taper]}{' '}
              {steepest === null
                ? 'none'
                : `${formatQuantity(steepest, 'ratio', { digits: 2, mark })}×`}
              {n === 0 && ' · most even'}
              {!oneWay && ' · turns back'}
            </button>
          ))}
        </p>
      )}
      <KnobReach sheet={sheet} control={control} picture={picture} reading={reading} />
    </div>
  );
}

function readingChoices(sheet: Sheet, mark: DecimalMark) {
  const stages = sheet.ways[0].stages.map((s) => s.id);
  return sheet.readings.map((r) => ({ value: r.id, label: readingName(r, mark, stages) }));
}

const qOf = (pole: TravelRow['pole'], mark: DecimalMark) =>
  typeof pole?.q === 'number' ? formatQuantity(pole.q, 'ratio', { digits: 3, mark }) : '–';

/** So many readings have a column. */
const COLUMNS = 3;

function Rows({ sheet, picture, at }: { sheet: Sheet; picture: TravelPicture; at: number }) {
  const mark = usePreferences((p) => p.mark);
  const stages = sheet.ways[0].stages.map((s) => s.id);
  const here = nearestRow(picture, at);
  const edges = sheet.readings.filter((r) => r.measure.measure === 'edge');
  const others = sheet.readings.filter((r) => r.measure.measure === 'level');
  const columns = [...edges, ...others].slice(0, COLUMNS);
  const hz = (value: number) => formatQuantity(value, 'hertz', { digits: 3, unit: true, mark });
  return (
    <table className={styles.table} aria-label="What the travel does">
      <thead>
        <tr>
          <th scope="col">Travel</th>
          <th scope="col">track</th>
          <th scope="col">f0</th>
          <th scope="col">Q</th>
          <th scope="col">highest</th>
          {columns.map((r) => (
            <th scope="col" key={r.id}>
              {readingName(r, mark, stages)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {picture.rows.map((row, k) => (
          <tr key={row.at} aria-current={k === here}>
            <th scope="row">{formatFixed(row.at * 100, 0, mark)} %</th>
            <td>
              {row.ohms === null
                ? '–'
                : formatQuantity(row.ohms, 'ohms', { digits: 3, unit: true, mark })}
            </td>
            <td>{row.pole ? hz(row.pole.f0Hz) : '–'}</td>
            <td>{qOf(row.pole, mark)}</td>
            <td>{formatFixed(row.highestDb, 2, mark)} dB</td>
            {columns.map((r) => (
              <td key={r.id}>
                {Number.isNaN(row.readings[r.id])
                  ? 'none'
                  : printMeasured(r.measure, row.readings[r.id], mark)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

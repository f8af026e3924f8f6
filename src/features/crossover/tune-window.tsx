import { Button, Checkbox, InputNumber, Progress, Select } from 'antd';
import { useEffect, useState } from 'react';
import { hasAmplifiers } from '@/core/crossover/active';
import { USUAL_WISH, type TunedCrossover, type TuneWish } from '@/core/crossover/tune';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { useSolvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { attempt } from '../shell/tell';
import { takeTuning } from './actions';
import { clearTuning, startTuning, stopTuning, useTuning, type Ends } from './tuning';
import styles from './tune-window.module.css';

/** What is to be tuned, how far it has come, and what was found. */
export function TuneForm({ sheet }: { sheet: Sheet }) {
  const solved = useSolvedSheet(sheet);
  const order = sheet.crossover?.order ?? 2;
  const amplified = hasAmplifiers(sheet);
  const [wish, setWish] = useState<TuneWish>({ ...USUAL_WISH, acousticOrder: order + 1 });
  const [ends, setEnds] = useState<Ends>('series');
  const { running, progress, result, problem } = useTuning();
  useEffect(() => clearTuning, []);
  const change = (part: Partial<TuneWish>) => setWish((w) => ({ ...w, ...part }));
  return (
    <div className={styles.form}>
      <label>
        Every way in the air, of order
        <Select
          size="small"
          aria-label="Order in the air"
          value={wish.acousticOrder}
          options={[1, 2, 3, 4, 5, 6].map((value) => ({ value, label: value }))}
          onChange={(acousticOrder) => change({ acousticOrder })}
        />
      </label>
      <Within
        words="keep each way to it within ±"
        label="Ways within, dB"
        unit="dB"
        value={wish.wayWithinDb}
        usual={USUAL_WISH.wayWithinDb!}
        range={[0.5, 20]}
        step={0.5}
        onChange={(wayWithinDb) => change({ wayWithinDb })}
      />
      <Within
        words="ways in phase where they meet, within ±"
        label="In phase within, degrees"
        unit="°"
        value={wish.trackDegrees}
        usual={USUAL_TRACK}
        range={[5, 120]}
        step={5}
        onChange={(trackDegrees) => change({ trackDegrees })}
      />
      <Within
        words="no value further than ×"
        label="Values at most times"
        unit=""
        value={wish.reach}
        usual={USUAL_REACH}
        range={[1.1, 12]}
        step={0.1}
        onChange={(reach) => change({ reach })}
      />
      <Checkbox
        checked={wish.polarity === 'any'}
        onChange={(e) => change({ polarity: e.target.checked ? 'any' : 'kept' })}
      >
        Drivers may be turned over
      </Checkbox>
      <Checkbox checked={wish.keepTyped} onChange={(e) => change({ keepTyped: e.target.checked })}>
        Leave values that were typed
      </Checkbox>
      <label>
        End in
        <Select<Ends>
          size="small"
          aria-label="End in"
          popupMatchSelectWidth={false}
          value={ends}
          options={[
            { value: 'series', label: seriesWords(sheet.parts) },
            { value: 'drawer', label: 'what lies in the drawer' },
            { value: 'exact', label: 'exact values' },
          ]}
          onChange={setEnds}
        />
      </label>
      {running ? (
        <div className={styles.running}>
          <Progress
            percent={Math.round((100 * (progress?.done ?? 0)) / (progress?.of ?? 1))}
            size="small"
            aria-label="Tuning"
          />
          <Button size="small" onClick={stopTuning}>
            Stop
          </Button>
        </div>
      ) : (
        <Button type="primary" onClick={() => void startTuning(solved, wish, ends)}>
          Tune on the true drivers
        </Button>
      )}
      {problem && (
        <p role="alert" className={styles.problem}>
          {problem}
        </p>
      )}
      {result && (
        <>
          <p className={styles.before}>
            Before <Achieved of={result.before} amplified={amplified} />
          </p>
          <ol className={styles.found} aria-label="Found">
            {result.found.map((found, i) => (
              <li key={i}>
                <Achieved of={found} amplified={amplified} />
                {found.inverted.length > 0 && (
                  <span className={styles.turned}>
                    {' '}
                    ·{' '}
                    {sheet.ways
                      .filter((w) => found.inverted.includes(w.id))
                      .map((w) => w.name)
                      .join(', ')}{' '}
                    turned over
                  </span>
                )}
                <Take found={found} n={i + 1} />
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

const seriesWords = ({ resistors, capacitors, inductors }: Sheet['parts']): string =>
  `values of ${resistors}, ${capacitors} and ${inductors}`;

/** What is usual where it is asked for. */
const USUAL_TRACK = 30;
const USUAL_REACH = 3;

/** A wish that can be made, and how far it goes. */
function Within({
  words,
  label,
  unit,
  value,
  usual,
  range: [min, max],
  step,
  onChange,
}: {
  words: string;
  label: string;
  unit: string;
  value: number | undefined;
  usual: number;
  range: readonly [number, number];
  step: number;
  onChange: (value: number | undefined) => void;
}) {
  return (
    <label>
      <Checkbox
        checked={value !== undefined}
        onChange={(e) => onChange(e.target.checked ? usual : undefined)}
      >
        {words}
      </Checkbox>
      <InputNumber<number>
        size="small"
        aria-label={label}
        min={min}
        max={max}
        step={step}
        disabled={value === undefined}
        value={value ?? usual}
        onChange={(x) => onChange(x ?? usual)}
        suffix={unit}
      />
    </label>
  );
}

function Achieved({
  of,
  amplified,
}: {
  of: Pick<TunedCrossover, 'withinDb' | 'leastOhms'>;
  /** Behind amplifiers of their own, drivers are loads that no value changes. */
  amplified: boolean;
}) {
  const mark = usePreferences((p) => p.mark);
  const least = formatQuantity(of.leastOhms, 'ohms', { unit: true, mark, digits: 2 });
  return (
    <span className="mono">
      ±{formatFixed(of.withinDb, 2, mark)} dB{!amplified && `, least ${least}`}
    </span>
  );
}

const Take = ({ found, n }: { found: TunedCrossover; n: number }) => (
  <Button
    size="small"
    aria-label={`Take result ${n}`}
    onClick={() => attempt(() => takeTuning(found))}
  >
    Take
  </Button>
);

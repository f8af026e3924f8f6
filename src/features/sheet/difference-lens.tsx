import { useMemo, useState } from 'react';
import type { DifferencePicture, DifferenceTerm } from '@/core/lenses/difference';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import { quantityOfMeasure, type Measure } from '@/core/response/readings';
import type { Sheet } from '@/core/sheet/schema';
import type { Truth } from '@/core/sheet/truths';
import { readingName } from '@/core/sheet/words';
import { usePreferences } from '@/store/preferences';
import { differenceAxis } from '@/ui/chart/axis';
import { LayerKey, type LineLayer } from '@/ui/chart/layers';
import { LensState } from './lens-state';
import { TRUTH_WORDS } from './truth-words';
import { OverFrequency } from './over-frequency';
import { useLens } from './use-lens';
import styles from './real-lenses.module.css';

/** What makes the built path other than the ideal one: over frequency, and of every reading. */
export function DifferenceLens({ sheet }: { sheet: Sheet }) {
  const { picture, problem, stale } = useLens(sheet, { lens: 'difference' });
  return (
    <LensState problem={problem} stale={stale}>
      {picture && picture.terms.length === 0 && (
        <p>
          The path is built exactly as it was designed, of ideal op-amps: there is no difference.
        </p>
      )}
      {picture && picture.terms.length > 0 && <Picture sheet={sheet} difference={picture} />}
    </LensState>
  );
}

function Picture({ sheet, difference }: { sheet: Sheet; difference: DifferencePicture }) {
  const [chosen, setChosen] = useState<Truth | null>(null);
  const { terms } = difference;
  const shown = terms.find((t) => t.truth === chosen) ?? terms[0];
  const words = TRUTH_WORDS[shown.truth];
  return (
    <div className={styles.lens}>
      <p className={styles.head}>
        <span className={styles.key}>
          <LayerKey kind="line" look="built" /> built less ideal
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="keep" /> of it {words.long}
        </span>
      </p>
      <Curves sheet={sheet} difference={difference} term={shown} />
      <div className={styles.side}>
        <table className={styles.table} aria-label="What each term adds to each reading">
          <thead>
            <tr>
              <th scope="col">Built less ideal</th>
              <th scope="col">whole</th>
              {terms.map(({ truth }) => (
                <th scope="col" key={truth}>
                  <button
                    type="button"
                    className={
                      truth === shown.truth ? `${styles.choice} ${styles.chosen}` : styles.choice
                    }
                    aria-pressed={truth === shown.truth}
                    title={`Draw ${TRUTH_WORDS[truth].long}`}
                    onClick={() => setChosen(truth)}
                  >
                    {TRUTH_WORDS[truth].short}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.readings.map((reading) => (
              <Line key={reading.id} sheet={sheet} id={reading.id} difference={difference} />
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/** The terms of one reading. */
function Line({
  sheet,
  id,
  difference: { whole, terms },
}: {
  sheet: Sheet;
  id: string;
  difference: DifferencePicture;
}) {
  const mark = usePreferences((p) => p.mark);
  const reading = sheet.readings.find((r) => r.id === id)!;
  const stages = sheet.ways[0].stages.map((s) => s.id);
  const all = whole.readings[id];
  const parts = terms.map(({ readings }) => readings[id]);
  const largest = Math.max(...parts.map((p) => Math.abs(p)));
  return (
    <tr>
      <th scope="row">
        {readingName(reading, mark, stages)}
        {unitOf(reading.measure)}
      </th>
      <td>{signed(reading.measure, all, largest, mark)}</td>
      {terms.map(({ truth }, i) => (
        <td key={truth} className={Math.abs(parts[i]) >= 0.5 * largest ? styles.most : undefined}>
          {signed(reading.measure, parts[i], largest, mark)}
        </td>
      ))}
    </tr>
  );
}

/** Less than this part of the largest term does not count. */
const NEXT_TO_NOTHING = 2e-3;

/** What the figures of a row are in, where they do not say so themselves. */
function unitOf(measure: Measure): string {
  const kind = quantityOfMeasure(measure);
  if (kind === 'hertz' || kind === 'degrees') return '';
  return kind === 'slope' ? ', dB/oct' : ', dB';
}

/** A difference with its sign. */
function signed(measure: Measure, value: number, largest: number, mark: DecimalMark): string {
  if (Number.isNaN(value)) return 'none';
  if (!(Math.abs(value) > NEXT_TO_NOTHING * largest)) return '0';
  const plus = value > 0 ? '+' : '';
  const print = (digits: number) =>
    Math.abs(value) < 0.5 * 10 ** -digits ? '0' : plus + formatFixed(value, digits, mark);
  switch (quantityOfMeasure(measure)) {
    case 'hertz':
      return plus + formatQuantity(value, 'hertz', { digits: 3, unit: true, mark });
    case 'degrees':
      return `${print(largest < 1 ? 2 : 1)}°`;
    default:
      return print(largest < 0.1 ? 3 : 2);
  }
}

function Curves({
  sheet: { view },
  difference,
  term,
}: {
  sheet: Sheet;
  difference: DifferencePicture;
  term: DifferenceTerm;
}) {
  const { frequenciesHz, heard } = difference;
  const whole = difference.whole.levelDb;
  const mark = usePreferences((p) => p.mark);
  const layers = useMemo<LineLayer[]>(
    () => [
      { kind: 'line', id: 'whole', name: 'whole', look: 'built', x: frequenciesHz, y: whole },
      { kind: 'line', id: 'term', name: 'term', look: 'keep', x: frequenciesHz, y: term.levelDb },
    ],
    [frequenciesHz, whole, term],
  );
  const y = useMemo(() => {
    const { domain, ticks } = differenceAxis(
      [whole, term.levelDb].map((y) => y.filter((_, k) => heard[k])),
    );
    return {
      domain,
      ticks: ticks.map((value) => ({
        value,
        text: `${value > 0 ? '+' : ''}${formatQuantity(value, 'ratio', { digits: 3, mark })} dB`,
      })),
    };
  }, [whole, term, heard, mark]);
  return (
    <OverFrequency
      title="Difference of level over frequency"
      fromHz={view.fromHz}
      toHz={view.toHz}
      layers={layers}
      y={y}
    />
  );
}

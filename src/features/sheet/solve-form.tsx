import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { LONGEST_QUANTITY, parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import { quantityOfMeasure } from '@/core/response/readings';
import type { Reading, Sheet, Stage } from '@/core/sheet/schema';
import { quantityOfPart } from '@/core/sheet/stage';
import { printMeasured, readingName } from '@/core/sheet/words';
import type { SolveAnswer } from '@/core/solve/solve-for';
import { fixedAndTrimmer } from '@/core/solve/trimmer';
import { solvedSheet } from '@/store/open-library';
import { usePreferences } from '@/store/preferences';
import { engine } from '@/workers/engine';
import { attempt } from '../shell/tell';
import { setSolved } from './actions/parts';
import styles from './solve-form.module.css';

interface SolveFormProps {
  sheet: Sheet;
  stage: Stage;
  part: string;
  name: string;
}

/** What must this part be, so that a reading is what is wanted of it? */
export function SolveForm({ sheet, stage, part, name }: SolveFormProps) {
  const mark = usePreferences((p) => p.mark);
  const { readings } = sheet;
  const [id, setId] = useState(
    () => (readings.find((r) => r.wanted) ?? (readings[0] as Reading | undefined))?.id,
  );
  const reading = readings.find((r) => r.id === id);
  const [text, setText] = useState<string | null>(null);
  const [answer, setAnswer] = useState<{ of: Sheet; found: SolveAnswer } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  if (!reading)
    return <p className={styles.form}>Pin a reading first: it is what is solved for.</p>;
  const wish = text ?? (reading.wanted ? printWish(reading, mark) : '');
  const ask = async () => {
    setAnswer(null);
    setProblem(null);
    setAsking(true);
    try {
      const want = parseQuantity(wish, quantityOfMeasure(reading.measure), mark);
      const { measure, at } = reading;
      const question = { stage: stage.id, part, measure, want, ...(at ? { at } : {}) };
      const input = { sheet: solvedSheet(sheet), question };
      setAnswer({ of: sheet, found: await engine().run('solvePart', input) });
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
    } finally {
      setAsking(false);
    }
  };
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        void ask();
      }}
    >
      <p>
        What must <b>{name}</b> be, so that
      </p>
      <Select
        aria-label="The reading"
        value={reading.id}
        options={readings.map((r) => ({
          value: r.id,
          label: readingName(
            r,
            mark,
            sheet.ways[0].stages.map((s) => s.id),
          ),
        }))}
        onChange={(chosen) => {
          setId(chosen);
          setText(null);
          setAnswer(null);
        }}
      />
      <label className={styles.row}>
        is
        <Input
          className="mono"
          aria-label="Wanted of it"
          value={wish}
          maxLength={LONGEST_QUANTITY}
          onChange={(e) => {
            setText(e.target.value);
            setAnswer(null);
          }}
        />
        <Button type="primary" htmlType="submit" loading={asking}>
          Solve
        </Button>
      </label>
      {problem !== null && <p role="alert">{problem}</p>}
      {answer && answer.of === sheet && (
        <Answer {...answer.found} reading={reading} stage={stage} part={part} mark={mark} />
      )}
      {answer && answer.of !== sheet && <p>The sheet has changed since: solve again.</p>}
    </form>
  );
}

/** What is wanted, as it would be typed. */
const printWish = ({ measure, wanted }: Reading, mark: DecimalMark): string =>
  formatQuantity(wanted!.value, quantityOfMeasure(measure), { digits: 6, mark }).replace('−', '-');

/** Every value that does it, each to be taken; or why there is none. */
function Answer({
  solutions,
  why,
  reading,
  stage,
  part,
  mark,
}: SolveAnswer & { reading: Reading; stage: Stage; part: string; mark: DecimalMark }) {
  const quantity = quantityOfPart(stage, part)!.quantity;
  if (why !== null) return <p role="status">{why}</p>;
  return (
    <ul className={styles.solutions} aria-label="Values that do it">
      {solutions.map(({ value, reads }) => {
        const trimmer = quantity === 'ohms' ? fixedAndTrimmer(value) : undefined;
        const print = (x: number) => formatQuantity(x, quantity, { digits: 4, mark });
        return (
          <li key={value}>
            <span>
              <b className="mono">
                {formatQuantity(value, quantity, { digits: 5, unit: true, mark })}
              </b>
              <small>
                reads {printMeasured(reading.measure, reads, mark)}
                {trimmer &&
                  `; or ${print(trimmer.fixed)} with a trimmer of ${print(trimmer.trimmer)}, ${formatFixed(trimmer.turn * 100, 0, mark)} % up`}
              </small>
            </span>
            <Button size="small" onClick={() => attempt(() => setSolved(stage.id, part, value))}>
              Take it
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

import { listed, type Names } from '@/core/bench/place-words';
import type { ReactNode } from 'react';
import type { Comparison } from '@/core/bench/compare';
import { QUANTITIES } from '@/core/quantity/kinds';
import { answered } from '@/core/suspects/answer';
import type { NextStep } from '@/core/suspects/next-step';
import type { Findings } from '@/core/suspects/suspects';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { meterFigure } from './meter-figure';
import {
  answerWords,
  explainedWords,
  mistakeWords,
  nextWords,
  quantityOfNext,
  suspectName,
  valueWords,
} from './suspect-words';
import styles from './bench.module.css';

/** What was read where the list asks for it. */
interface AnswerProps {
  value: number | undefined;
  onAnswer: (value: number | null) => void;
}

interface SuspectListProps {
  comparison: Comparison;
  /** Names of the takes that were weighed with the one that is looked at. */
  beside?: readonly string[];
  chosen: number;
  onChoose: (suspect: number) => void;
  /** Of the chosen suspect. */
  whatToDo?: ReactNode;
  /** Without it nothing can be answered. */
  answer?: AnswerProps;
}

/** Suspects that are less likely than this are not shown. */
const SHOWN = 0.01;

/** Which part explains the take, how sure that is, and what would settle it. */
export function SuspectList({
  comparison,
  beside = [],
  chosen,
  onChoose,
  whatToDo,
  answer,
}: SuspectListProps) {
  const mark = usePreferences((p) => p.mark);
  const { findings, values, names } = comparison;
  const { ranking, mistakes, next } = findings;
  const shown = ranking.filter((s, i) => i === 0 || s.chance >= SHOWN);
  return (
    <>
      <p className={styles.verdict} role="status">
        {verdictOf(findings)}
        {beside.length > 0 && <span className={styles.small}> Weighed with {listed(beside)}.</span>}
      </p>
      <ul className={styles.suspects} aria-label="Suspects">
        {shown.map((suspect, i) => (
          <li key={suspect.parts.map((p) => p.id).join()}>
            <button
              type="button"
              className={i === chosen ? `${styles.suspect} ${styles.chosen}` : styles.suspect}
              aria-pressed={i === chosen}
              onClick={() => onChoose(i)}
            >
              <span className={styles.suspectHead}>
                <b>{suspectName(suspect, mark, names)}</b>
                <span className={styles.figure}>{valueWords(values[i], suspect.parts, mark)}</span>
              </span>
              <meter
                className={styles.meter}
                min={0}
                max={1}
                value={suspect.chance}
                aria-label={`${Math.round(suspect.chance * 100)} % likely`}
              />
              <span className={styles.small}>
                {Math.round(suspect.chance * 100)} % likely; {explainedWords(suspect, names)}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {mistakes.length > 0 && (
        <>
          <h3>Or a mistake</h3>
          <ul className={styles.mistakes}>
            {mistakes.slice(0, 4).map((m) => (
              <li key={`${m.kind} ${m.parts.join()}`}>
                {mistakeWords(m, mark, names)}
                <span className={styles.small}>
                  {' '}
                  {Math.round(m.chance * 100)} % likely
                  {m.alike.length > 0 &&
                    `; the same as ${m.alike.map((a) => mistakeWords(a, mark, names)).join(', ')}`}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {next && (
        <>
          <h3>To be sure</h3>
          <p>{nextWords(next, comparison.meeting, mark, names)}</p>
          {answer && <NextAnswer next={next} names={names} {...answer} />}
        </>
      )}
      {whatToDo}
      <p className={styles.lookedFor}>
        Looked for as well: swapped parts, a decade off, missing and bridged parts, the wrong way
        round, no ground, slow op-amps, what source and probe do.
        {findings.unseen.length > 0 &&
          ` This take says nothing of ${listed(findings.unseen, names)}.`}
      </p>
    </>
  );
}

/** The answer to what is asked for, and what it says. */
function NextAnswer({
  next,
  names,
  value,
  onAnswer,
}: AnswerProps & { next: NextStep; names: Names }) {
  const mark = usePreferences((p) => p.mark);
  const quantity = quantityOfNext(next);
  const { symbol, prefixed } = QUANTITIES[quantity];
  const shown = (v: number) => `${meterFigure(v, quantity, mark)}${prefixed ? '' : ` ${symbol}`}`;
  return (
    <p>
      Read{' '}
      <EditableQuantity
        label="Read where it is asked for"
        shown={value === undefined ? '…' : shown(value)}
        value={value ?? 0}
        kind={quantity}
        mark={mark}
        width={90}
        onCommit={onAnswer}
      />
      {value !== undefined && <b role="status"> {answerWords(answered(next, value), names)}</b>}
    </p>
  );
}

/** What the take comes to, in a sentence. */
export function verdictOf({ ordinary, ranking, mistakes }: Findings): string {
  if (ordinary.enough)
    return 'Nothing is wrong that this take could show: tolerances and noise explain the difference.';
  const [first] = ranking;
  const mistake = mistakes.reduce((sum, m) => sum + m.chance, 0);
  if (mistake > 0.5) return 'No part that is merely off explains this: it looks like a mistake.';
  if (first.parts.length === 2) return 'No part alone explains the take; two together do.';
  const doubt = ordinary.chance > 0.05 ? ' Tolerances might still explain it.' : '';
  if (first.alike.length > 0)
    return `One part off explains it, one of ${first.alike.length + 1} that are alike.${doubt}`;
  return first.chance > 0.9
    ? `One part off explains it.${doubt}`
    : `One part off explains it; which one is not settled.${doubt}`;
}

import { recoveredParts, type Recovered } from '@/core/bank/recover';
import type { Channel } from '@/core/sheet/bank-schema';
import { ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Stage, Way } from '@/core/sheet/schema';
import { quantityOfPart } from '@/core/sheet/stage';
import { fixedAndTrimmer } from '@/core/solve/trimmer';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { setMarked } from './bank-actions';
import styles from './bank-screen.module.css';

/** What was worked out of a partly known channel; nothing where that cannot be. */
export function recoveredOf(channel: Channel, way: Way): Recovered[] {
  try {
    return recoveredParts(channel, way);
  } catch (error) {
    if (error instanceof ReedError) return [];
    throw error;
  }
}

/** Whether the trimmer that a drawing shows reaches what its part must be. */
export const reaches = ({ marked }: Recovered): boolean | undefined =>
  marked?.turn === undefined ? undefined : marked.turn >= 0 && marked.turn <= 1;

const kindOf = ({ part }: Recovered, stage: Stage) => quantityOfPart(stage, part)!.quantity;

/** The missing parts of a channel, each beside what the drawing of the board shows. */
export function RecoveredList({
  channel,
  way,
  mark,
}: {
  channel: Channel;
  way: Way;
  mark: DecimalMark;
}) {
  const found = recoveredOf(channel, way);
  if (found.length === 0) return null;
  return (
    <section className={styles.recovered} aria-label="Recovered parts">
      <h3>Recovered</h3>
      <ul>
        {found.map((own) => (
          <li key={own.key}>
            <Words own={own} channel={channel} stage={way.stages[own.stage]} mark={mark} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Words({
  own,
  channel,
  stage,
  mark,
}: {
  own: Recovered;
  channel: Channel;
  stage: Stage;
  mark: DecimalMark;
}) {
  const kind = kindOf(own, stage);
  const print = (x: number) => formatQuantity(x, kind, { unit: true, digits: 4, mark });
  const { marked, key, value } = own;
  const said = channel.marked?.[key];
  const advised = kind === 'ohms' ? fixedAndTrimmer(value) : undefined;
  const field = (label: string, of: 'value' | 'trimmer', x: number | undefined) => (
    <EditableQuantity
      label={`${label} of ${own.part} of stage ${own.stage + 1}`}
      value={x ?? null}
      kind={kind}
      mark={mark}
      clearable
      shown={x === undefined ? 'nothing' : print(x)}
      onCommit={(next) => setMarked(channel.id, key, { [of]: next ?? undefined })}
    />
  );
  return (
    <>
      <b>
        {own.part} of stage {own.stage + 1}
      </b>{' '}
      must be <b className="mono">{print(value)}</b>. The drawing says{' '}
      {field('Marked value', 'value', said?.value)}
      {said && <> with a trimmer of {field('Trimmer', 'trimmer', said.trimmer)}</>}
      {': '}
      {marked ? markedWords(own, print, mark) : advised ? '' : 'no more is known of it.'}
      {!marked && advised && (
        <>
          {print(advised.fixed)} with a trimmer of {print(advised.trimmer)} would do,{' '}
          {formatFixed(advised.turn * 100, 0, mark)} % up.
        </>
      )}
    </>
  );
}

function markedWords(
  { value, marked }: Recovered,
  print: (x: number) => string,
  mark: DecimalMark,
): string {
  const { value: fixed, trimmer, turn } = marked!;
  const off = `${formatFixed((value / fixed - 1) * 100, 1, mark)} % away`;
  if (turn === undefined || trimmer === undefined) return `${off}.`;
  if (turn < 0) return `${off}; ${print(fixed)} alone is too much by ${print(fixed - value)}.`;
  if (turn > 1) return `${off}; the trimmer falls short by ${print(value - fixed - trimmer)}.`;
  return `the trimmer reaches it, ${formatFixed(turn * 100, 0, mark)} % up.`;
}

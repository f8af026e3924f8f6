import { Button, Input } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import type { Control, Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { setControlTable } from './actions/control-law';
import { givenAt, movedQuantity } from './control-words';
import styles from './forms.module.css';

interface Point {
  at: number;
  value: number;
}

/** The table of a control, a line for each place: what it gives, and what that makes of the part. */
export function ControlTableForm({
  sheet,
  control,
  done,
}: {
  sheet: Sheet;
  control: Control;
  done: () => void;
}) {
  const mark = usePreferences((p) => p.mark);
  const moved = movedQuantity(sheet, control);
  const [text, setText] = useState(() => textOf(control, moved.kind, mark));
  const [error, setError] = useState<string>();
  const apply = () => {
    try {
      setControlTable(control.id, pointsOf(text, control, moved.kind, mark));
      done();
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const given = control.is === 'volts' ? 'volts' : control.is === 'amps' ? 'amperes' : 'turn';
  return (
    <form
      className={styles.form}
      onSubmit={(e) => {
        e.preventDefault();
        apply();
      }}
    >
      <span>
        A line for each place: {given}, a space, and what {moved.name} has there.
      </span>
      <Input.TextArea
        aria-label="Table of the control"
        autoSize={{ minRows: 5, maxRows: 14 }}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
      <Button type="primary" size="small" htmlType="submit">
        Use this table
      </Button>
    </form>
  );
}

/** As far as a figure of four digits is from what it was printed from. */
const AT_END = 2e-3;

const kindGiven = ({ is, span }: Control): QuantityKind =>
  !span || is === 'turn' ? 'ratio' : is === 'volts' ? 'volts' : 'amps';

function textOf(control: Control, kind: QuantityKind, mark: DecimalMark): string {
  const [{ from, to, table = [] }] = control.moves;
  const points: Point[] = [{ at: 0, value: from }, ...table, { at: 1, value: to }];
  const print = (value: number, of: QuantityKind) =>
    formatQuantity(value, of, { digits: 4, style: 'plain', mark });
  return points
    .map(
      ({ at, value }) => `${print(givenAt(control, at), kindGiven(control))} ${print(value, kind)}`,
    )
    .join('\n');
}

/** @throws ReedError `range` or `parse` naming the line */
function pointsOf(text: string, control: Control, kind: QuantityKind, mark: DecimalMark): Point[] {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const { from, to } = { from: givenAt(control, 0), to: givenAt(control, 1) };
  const points = lines.map((line, k) => {
    const words = line.trim().split(/[\s;]+/);
    if (words.length !== 2)
      throw new ReedError('range', `Line ${k + 1} needs two numbers: “${line.trim()}”.`);
    try {
      const given = parseQuantity(words[0], kindGiven(control), mark);
      return { at: (given - from) / (to - from), value: parseQuantity(words[1], kind, mark) };
    } catch (failure) {
      throw new ReedError('range', `Line ${k + 1}: ${messageOf(failure)}`);
    }
  });
  if (points.length < 2) throw new ReedError('range', 'A table needs two places at least.');
  const [first, last] = [points[0], points[points.length - 1]];
  if (Math.abs(first.at) > AT_END || Math.abs(last.at - 1) > AT_END)
    throw new ReedError(
      'range',
      'The first line must be the lower end of the control and the last line its upper end.',
    );
  const back = points.findIndex((p, k) => k > 0 && p.at <= points[k - 1].at);
  if (back > 0) throw new ReedError('range', `Line ${back + 1} goes back: the places must rise.`);
  return points;
}

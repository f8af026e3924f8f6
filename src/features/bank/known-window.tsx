import { Button, Input, Modal } from 'antd';
import { useMemo, useState } from 'react';
import { readKnownTable, type KnownTable } from '@/core/bank/known-table';
import { messageOf, ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { Bank } from '@/core/sheet/bank-schema';
import type { Way } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { tell } from '../shell/tell';
import { putKnownTable } from './bank-actions';
import styles from './bank-screen.module.css';

interface KnownWindowProps {
  bank: Bank;
  ways: readonly Way[];
  onClose: () => void;
}

/** Known values of many channels at once, pasted from a spreadsheet; nothing is put in before it is confirmed. */
export function KnownWindow({ bank, ways, onClose }: KnownWindowProps) {
  const mark = usePreferences((p) => p.mark);
  const [text, setText] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const read = useMemo(() => readIfAny(text, bank, ways, mark), [text, bank, ways, mark]);
  const table = 'rows' in read ? read : undefined;
  const put = () => {
    try {
      putKnownTable(table!);
      tell(`Known parts of ${table!.rows.length} channels are put in; the others are worked out`);
      onClose();
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setRefused(messageOf(error));
    }
  };
  return (
    <Modal
      open
      width={760}
      title="Known values of several channels"
      onCancel={onClose}
      footer={
        <Button type="primary" disabled={!table || table.rows.length === 0} onClick={put}>
          {table ? `Put in ${table.rows.length} channels` : 'Put in'}
        </Button>
      }
    >
      <p>
        Paste a table: a heading, then a line for each channel. Parts are named by stage and part;
        an empty cell is worked out. “1/R2 marked” and “1/R2 trimmer” say what the drawing shows of
        such a part.
      </p>
      <Input.TextArea
        className="mono"
        aria-label="Table of known values"
        rows={8}
        value={text}
        placeholder={
          'centre\t1/C1\t1/C2\t1/R1\t1/R3\t1/R2 marked\t1/R2 trimmer\n63\t68n\t68n\t100k\t200k\t12k\t2k2'
        }
        onChange={(e) => {
          setText(e.target.value);
          setRefused(null);
        }}
      />
      {'problem' in read && read.problem !== null && <p role="alert">{read.problem}</p>}
      {refused !== null && <p role="alert">{refused}</p>}
      {table && <Preview table={table} bank={bank} />}
    </Modal>
  );
}

function readIfAny(
  text: string,
  bank: Bank,
  ways: readonly Way[],
  mark: 'point' | 'comma',
): KnownTable | { problem: string | null } {
  if (text.trim() === '') return { problem: null };
  try {
    return readKnownTable(text, bank, ways, mark);
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    return { problem: messageOf(error) };
  }
}

function Preview({ table: { rows, keys, bad }, bank }: { table: KnownTable; bank: Bank }) {
  const mark = usePreferences((p) => p.mark);
  return (
    <div role="status">
      <p>
        {rows.length} of {bank.channels.length} channels, {keys.length} parts each:{' '}
        {rows
          .map(({ channel }) =>
            formatQuantity(bank.channels[channel].centreHz, 'hertz', { unit: true, mark }),
          )
          .join(', ')}
      </p>
      {bad.length > 0 && (
        <ul className={styles.bad}>
          {bad.map(({ line, why }) => (
            <li key={`${line} ${why}`}>
              Line {line}: {why}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

import { Button, Input, Upload } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import {
  readStockLines,
  stockTable,
  type StockRead,
  type StockTable,
} from '@/core/library/stock-table';
import { addToDrawer } from '@/store/drawer';
import { usePreferences } from '@/store/preferences';
import { attemptStored, tell } from '../shell/tell';
import { StockPreview } from './stock-preview';
import { TablePreview } from './table-preview';
import styles from './drawer.module.css';

const DeviceWindow = lazy(() =>
  import('./device-window').then((m) => ({ default: m.DeviceWindow })),
);

/** A file larger than this is no list of parts. */
const MOST_BYTES = 4_000_000;

/** Parts put in by typing them, one kind a line, or from a table. */
export function AddParts() {
  const mark = usePreferences((p) => p.mark);
  const [text, setText] = useState('');
  const [table, setTable] = useState<StockTable | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [device, setDevice] = useState(false);
  const read = readStockLines(text, mark);
  const put = async (found: StockRead) => {
    const count = found.good.length;
    await attemptStored('Nothing was put into the drawer', async () => {
      await addToDrawer(found.good.map((g) => g.words));
      tell(`${count} ${count === 1 ? 'kind of part' : 'kinds of parts'} put into the drawer`);
      setTable(null);
      // What could not be read stays, to be mended.
      setText(found.bad.map((b) => b.text).join('\n'));
    });
  };
  const open = async (file: File) => {
    setProblem(null);
    try {
      if (file.size > MOST_BYTES)
        throw new ReedError('document', `${file.name} is far larger than any list of parts.`);
      const found = stockTable(await file.text());
      if (found.rows.length === 0)
        throw new ReedError('document', `${file.name} has no lines that say anything.`);
      setTable(found);
    } catch (error) {
      setProblem(error instanceof ReedError ? messageOf(error) : 'The file cannot be read.');
    }
  };
  /** A table that is pasted is looked at as one: its columns are to be named. */
  const paste = (pasted: string): boolean => {
    if (!pasted.trim().includes('\n')) return false;
    setProblem(null);
    let found: StockTable;
    try {
      found = stockTable(pasted);
    } catch (error) {
      if (!(error instanceof ReedError)) throw error;
      setProblem(messageOf(error));
      return true;
    }
    // Commas stand in typed lines too: only a heading tells that those are cells.
    if (found.heading === null && !/[\t;]/.test(pasted)) return false;
    setTable(found);
    return true;
  };
  return (
    <section className={styles.add} aria-label="Put parts in">
      <h2>Put parts in</h2>
      <p>
        One kind a line, in any order: how many, value, tolerance, what of, what it stands, price
        after “at”, place after “in”.
      </p>
      <Input.TextArea
        aria-label="Parts, one kind a line"
        className={styles.lines}
        rows={5}
        placeholder={'10x 22n 5 % film\n100x 4k7 1 % metal film at 0.02 in box 3'}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onPaste={(e) => {
          if (paste(e.clipboardData.getData('text'))) e.preventDefault();
        }}
      />
      {text.trim() !== '' && <StockPreview read={read} />}
      <div className={styles.row}>
        <Button type="primary" disabled={read.good.length === 0} onClick={() => void put(read)}>
          {read.good.length === 0
            ? 'Put in'
            : `Put in ${read.good.length} ${read.good.length === 1 ? 'kind' : 'kinds'}`}
        </Button>
        <Upload
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          showUploadList={false}
          beforeUpload={(file) => {
            void open(file);
            return false;
          }}
        >
          <Button>From a table…</Button>
        </Upload>
        <Button onClick={() => setDevice(true)}>A device…</Button>
      </div>
      {problem !== null && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      {device && (
        <Suspense>
          <DeviceWindow onClose={() => setDevice(false)} />
        </Suspense>
      )}
      {table && <TablePreview table={table} onPut={put} onClose={() => setTable(null)} />}
    </section>
  );
}

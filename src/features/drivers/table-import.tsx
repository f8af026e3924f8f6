import { Button, InputNumber, Upload } from 'antd';
import { useState } from 'react';
import { messageOf, ReedError } from '@/core/errors';
import type { LevelTable, Measured } from '@/core/speaker/measured';
import { readTable, type ReadTable } from '@/core/speaker/tables/read-table';
import { meetingShift } from '@/core/speaker/tables/work';
import styles from './drivers.module.css';

const MOST_BYTES = 8e6;
/** Lines that are shown of those that were not taken. */
const SHOWN = 6;

/** Brings a measured table in: what was read of it is told before anything is taken. */
export function TableImport({
  level,
  onTake,
}: {
  /** The level that is there already: another may be joined to it. */
  level: LevelTable | undefined;
  onTake: (measured: Measured) => void;
}) {
  const [read, setRead] = useState<{ name: string; table: ReadTable } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const open = async (file: File) => {
    setProblem(null);
    setRead(null);
    try {
      if (file.size > MOST_BYTES)
        throw new ReedError('document', 'The file is far larger than any measurement.');
      setRead({ name: file.name, table: readTable(await file.text()) });
    } catch (error) {
      const why = error instanceof ReedError ? messageOf(error) : 'The file cannot be read.';
      setProblem(`${file.name}: ${why}`);
    }
  };
  const take = (measured: Measured) => {
    onTake(measured);
    setRead(null);
  };
  return (
    <div className={styles.import}>
      <Upload
        accept=".txt,.csv,.tsv,.frd,.zma,.dat,.s1p"
        showUploadList={false}
        beforeUpload={(file) => {
          void open(file);
          return false;
        }}
      >
        <Button size="small">Bring a table in …</Button>
      </Upload>
      {problem && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      {read && <Read name={read.name} table={read.table} level={level} onTake={take} />}
    </div>
  );
}

function Read({
  name,
  table: { rows, refused, noted, read },
  level,
  onTake,
}: {
  name: string;
  table: ReadTable;
  level: LevelTable | undefined;
  onTake: (measured: Measured) => void;
}) {
  const [joinHz, setJoinHz] = useState(USUAL_JOIN);
  const frequenciesHz = rows.map((r) => r.frequencyHz);
  const values = rows.map((r) => r.value);
  const phases = read.columns === 3 ? { phaseDegrees: rows.map((r) => r.phaseDegrees!) } : {};
  const said = [...refused, ...noted].slice(0, SHOWN);
  const enough = rows.length >= 2;
  return (
    <div aria-label="What was read">
      <p>
        <b>{name}</b>: {rows.length} rows of {read.columns} columns
        {read.touchstone && `, ${read.touchstone.parameter} of one port as ohms`}
        {refused.length > 0 &&
          `; ${refused.length} ${refused.length === 1 ? 'line' : 'lines'} refused`}
        .
      </p>
      {said.length > 0 && (
        <ul>
          {said.map(({ line, why }) => (
            <li key={`${line} ${why}`}>
              line {line}: {why}
            </li>
          ))}
        </ul>
      )}
      <Button
        size="small"
        disabled={!enough || read.touchstone !== undefined}
        onClick={() =>
          onTake({
            level: {
              frequenciesHz,
              levelDb: values,
              ...phases,
              atVolts: 2.83,
              atMetres: 1,
              delaySeconds: 0,
              shiftDb: 0,
              lowSlope: 12,
              highSlope: -12,
            },
          })
        }
      >
        Take as level
      </Button>{' '}
      <Button
        size="small"
        disabled={!enough || values.some((v) => !(v > 0))}
        onClick={() => onTake({ impedance: { frequenciesHz, ohms: values, ...phases } })}
      >
        Take as impedance
      </Button>
      {level && (
        <div className={styles.line}>
          <Button
            size="small"
            disabled={!enough || read.touchstone !== undefined}
            onClick={() => {
              const below = { frequenciesHz, levelDb: values, ...phases };
              const shiftDb = Number(meetingShift(level, below, joinHz).toFixed(2));
              onTake({ level: { ...level, below: { ...below, joinHz, shiftDb } } });
            }}
          >
            Join to the level, below
          </Button>
          <InputNumber<number>
            size="small"
            aria-label="Join below"
            suffix="Hz"
            min={1}
            max={20_000}
            value={joinHz}
            onChange={(hz) => hz !== null && setJoinHz(hz)}
          />
        </div>
      )}
    </div>
  );
}

/** Where a near measurement of a bass unit usually gives way to a far one. */
const USUAL_JOIN = 300;

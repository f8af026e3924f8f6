'use client';

import { Button, Input, Modal, Radio } from 'antd';
import { useState } from 'react';
import { mainHz, placedBy } from '@/core/design/ask';
import { formatQuantity } from '@/core/quantity/format';
import { LONGEST_QUANTITY, parseQuantity } from '@/core/quantity/parse';
import { SHEET_LIMITS } from '@/core/sheet/limits';
import type { Sheet } from '@/core/sheet/schema';
import { isVisible } from '@/core/text';
import { now } from '@/store/ids';
import { usePreferences } from '@/store/preferences';
import { whyNotMade } from '@/store/problems';
import { addSheet } from '@/store/sheets';
import { fittedSheet } from '../sheet/fitting';
import { beginSheet } from './begin';
import { JOBS, PEOPLE, type Job } from './jobs';
import styles from './new-sheet.module.css';

interface NewSheetProps {
  open: boolean;
  onClose: () => void;
  onMade: (sheet: Sheet) => void;
  /** Begin from drivers that are there instead. */
  onDrivers: () => void;
}

/** Begin a sheet from the job to be done. Stands ready before it is opened; begins anew each time. */
export function NewSheet({ open, onClose, onMade, onDrivers }: NewSheetProps) {
  const [times, setTimes] = useState(0);
  return (
    <Modal
      open={open}
      onCancel={onClose}
      afterClose={() => setTimes(times + 1)}
      title="What should it do?"
      footer={null}
      width={960}
      style={{ top: 40 }}
      forceRender
    >
      <Form key={times} onMade={onMade} onDrivers={onDrivers} />
    </Modal>
  );
}

function Form({ onMade, onDrivers }: Pick<NewSheetProps, 'onMade' | 'onDrivers'>) {
  const mark = usePreferences((p) => p.mark);
  const [job, setJob] = useState<Job>(() => JOBS.find((j) => j.id === 'flat-low')!);
  const [edge, setEdge] = useState<string | null>(null);
  const [title, setTitle] = useState('');
  const [error, setError] = useState<string>();
  const [beginning, setBeginning] = useState(false);
  const shownEdge = edge ?? formatQuantity(mainHz(job.ask), 'hertz', { mark });
  const make = async () => {
    try {
      const hz = parseQuantity(shownEdge, 'hertz', mark);
      const begun = beginSheet(job, hz, isVisible(title) ? title.trim() : job.title, now());
      setBeginning(true);
      onMade(await addSheet(await fittedSheet(begun)));
    } catch (failure) {
      setBeginning(false);
      setError(whyNotMade(failure));
    }
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
    >
      <Radio.Group
        className={styles.jobs}
        aria-label="The job"
        name="job"
        value={job.id}
        onChange={(e) => {
          setJob(JOBS.find((j) => j.id === e.target.value)!);
          setEdge(null);
          setError(undefined);
        }}
      >
        {(Object.keys(PEOPLE) as (keyof typeof PEOPLE)[]).map((who) => (
          <section key={who} aria-label={PEOPLE[who]}>
            <h3>{PEOPLE[who]}</h3>
            {JOBS.filter((j) => j.who === who).map((j) => (
              <Radio
                key={j.id}
                value={j.id}
                className={j === job ? `${styles.job} ${styles.chosen}` : styles.job}
              >
                <b>{j.title}</b>
                <span>{j.line}</span>
              </Radio>
            ))}
            {who === 'speaker' && (
              <button type="button" className={styles.drivers} onClick={onDrivers}>
                … or with drivers of your own
              </button>
            )}
          </section>
        ))}
      </Radio.Group>
      <div className={styles.fields}>
        <label>
          {placedBy(job.ask.kind) === 'edge' ? 'Edge at' : 'Centre at'}
          <Input
            className={`mono ${styles.edge}`}
            suffix="Hz"
            value={shownEdge}
            maxLength={LONGEST_QUANTITY}
            onChange={(e) => {
              setEdge(e.target.value);
              setError(undefined);
            }}
          />
        </label>
        <label className={styles.grow}>
          Called
          <Input
            value={title}
            placeholder={job.title}
            maxLength={SHEET_LIMITS.name}
            onChange={(e) => setTitle(e.target.value)}
          />
        </label>
        <Button type="primary" htmlType="submit" loading={beginning}>
          Begin the sheet
        </Button>
      </div>
      {error && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
    </form>
  );
}

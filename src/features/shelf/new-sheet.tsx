'use client';

import { App, Button, Modal } from 'antd';
import { useState } from 'react';
import { mainHz, placedAt, placedBy } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { makeBank } from '@/core/bank/make';
import { makeSheet } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';
import { now } from '@/store/ids';
import { usePreferences } from '@/store/preferences';
import { addSheet } from '@/store/sheets';
import { JOBS, type Job } from './jobs';
import styles from './new-sheet.module.css';

/** Begin a sheet from the job to be done. */
export function NewSheet({
  start,
  onClose,
  onMade,
}: {
  /** The job it opens with. */
  start: Job;
  onClose: () => void;
  onMade: (sheet: Sheet) => void;
}) {
  const { message } = App.useApp();
  const mark = usePreferences((p) => p.mark);
  const [job, setJob] = useState<Job>(start);
  const [edge, setEdge] = useState('');
  const [title, setTitle] = useState('');
  const [error, setError] = useState<string>();
  const shownEdge = edge === '' ? formatQuantity(mainHz(job.ask), 'hertz', { mark }) : edge;
  const make = async () => {
    try {
      const edgeHz = parseQuantity(shownEdge, 'hertz', mark);
      if (!(edgeHz > 0) || edgeHz > 1e7)
        throw new Error('The edge must lie above 0 Hz and at most at 10 MHz.');
      const common = {
        id: 'new',
        title: title.trim() || job.title,
        at: now(),
        source: job.source,
        load: job.load,
      };
      const sheet = job.bank
        ? makeBank({ ...common, centresHz: job.bank.map((x) => x * edgeHz) })
        : makeSheet({ ...common, ask: placedAt(job.ask, edgeHz) });
      const added = await addSheet(sheet);
      setTitle('');
      setEdge('');
      onMade(added);
    } catch (failure) {
      setError(messageOf(failure));
      void message.destroy();
    }
  };
  return (
    <Modal
      open
      onCancel={onClose}
      title="What should it do?"
      footer={null}
      width={720}
      destroyOnHidden
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <fieldset className={styles.jobs}>
          <legend className="visually-hidden">The job</legend>
          {JOBS.map((j) => (
            <label key={j.id} className={j === job ? `${styles.job} ${styles.chosen}` : styles.job}>
              <input
                type="radio"
                name="job"
                className="visually-hidden"
                checked={j === job}
                onChange={() => {
                  setJob(j);
                  setEdge('');
                }}
              />
              <b>{j.title}</b>
              <span>{j.line}</span>
            </label>
          ))}
        </fieldset>
        <div className={styles.fields}>
          <label>
            {placedBy(job.ask.kind) === 'edge' ? 'Edge at' : 'Centre at'}
            <input
              className={`mono ${styles.input}`}
              value={shownEdge}
              onFocus={() => setEdge(shownEdge)}
              onChange={(e) => setEdge(e.target.value)}
              aria-describedby="edge-unit"
            />
            <span id="edge-unit">Hz</span>
          </label>
          <label className={styles.grow}>
            Called
            <input
              className={styles.input}
              value={title}
              placeholder={job.title}
              maxLength={120}
              onChange={(e) => setTitle(e.target.value)}
            />
          </label>
          <Button type="primary" htmlType="submit">
            Begin the sheet
          </Button>
        </div>
        {error && (
          <p role="alert" className={styles.error}>
            {error}
          </p>
        )}
      </form>
    </Modal>
  );
}

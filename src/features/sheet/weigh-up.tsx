'use client';

import { Button, InputNumber, Modal, Progress, Table } from 'antd';
import { useMemo, useState, type Key } from 'react';
import type { Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { costOf, DEFAULT_PRICES, type Prices } from '@/core/weigh/prices';
import type { WeighRow } from '@/core/weigh/weigh';
import type { PartChoices } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { frequencyLabel, frequencyTicks } from '@/ui/chart/axis';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { takeAsk } from './actions';
import { SHAPE_WORDS } from './ask-words';
import { setUi, useUi } from './ui-state';
import { useWeighing } from './use-weighing';
import { weighColumns } from './weigh-columns';
import styles from './weigh-up.module.css';

/** Opened by the ask: every way of building it, side by side. */
export function WeighUp({ ask, opAmp }: { ask: Ask; opAmp: PartChoices['opAmp']['model'] }) {
  const open = useUi((s) => s.weighing);
  return (
    <Modal
      open={open}
      onCancel={() => setUi({ weighing: false })}
      title="Weigh up"
      footer={null}
      width="min(1600px, calc(100vw - 48px))"
      style={{ top: 24 }}
      destroyOnHidden
    >
      {open && <Weighing ask={ask} opAmp={opAmp} />}
    </Modal>
  );
}

/** Three at most are laid over each other, each with a line of its own form. */
const LOOKS = ['built', 'ideal', 'keep'] as const;

function Weighing({ ask, opAmp }: { ask: Ask; opAmp: PartChoices['opAmp']['model'] }) {
  const mark = usePreferences((p) => p.mark);
  const prices = usePreferences((p) => p.prices);
  // Prices change no curve: the table is weighed once and its costs are worked out here.
  const weighing = useWeighing(ask, opAmp, DEFAULT_PRICES);
  const [chosen, setChosen] = useState<string[]>([]);
  const [error, setError] = useState<string>();
  const rows = useMemo(
    () => weighing.rows.map((r) => ({ ...r, cost: costOf(r.counts, prices) })),
    [weighing.rows, prices],
  );
  const columns = useMemo(() => weighColumns(rows, mark), [rows, mark]);
  const overlaid = chosen.flatMap((id) => rows.find((r) => r.id === id) ?? []);
  const take = () => {
    try {
      takeAsk(overlaid[0].ask);
      setUi({ weighing: false });
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const done = rows.length + weighing.refusals.length;
  return (
    <div className={styles.weighing}>
      <div className={styles.top}>
        <Overlay rows={overlaid} />
        <div className={styles.side}>
          <PriceFields />
          <div className={styles.state} role="status">
            {weighing.running ? (
              <>
                <Progress
                  percent={Math.round((100 * done) / Math.max(1, weighing.total))}
                  size="small"
                />
                <Button size="small" onClick={weighing.stop}>
                  Stop
                </Button>
              </>
            ) : (
              <span>
                {rows.length} designs, each solved
                {weighing.refusals.length > 0 && `; ${weighing.refusals.length} cannot be built`}
              </span>
            )}
          </div>
          <Button type="primary" disabled={overlaid.length !== 1} onClick={take}>
            {overlaid.length === 1 ? `Take ${nameOf(overlaid[0])}` : 'Choose one to take it'}
          </Button>
          {(error ?? weighing.problem) && (
            <p role="alert" className={styles.error}>
              {error ?? weighing.problem}
            </p>
          )}
        </div>
      </div>
      <Table<WeighRow>
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={rows}
        pagination={false}
        scroll={{ x: 1330, y: 'calc(100vh - 470px)' }}
        showSorterTooltip={false}
        rowSelection={{
          selectedRowKeys: chosen,
          hideSelectAll: true,
          columnWidth: 36,
          fixed: true,
          onChange: (keys: Key[]) => setChosen(keys.map(String).slice(-LOOKS.length)),
          getCheckboxProps: (r) => ({ 'aria-label': `Lay over ${nameOf(r)}` }),
        }}
      />
      {weighing.refusals.length > 0 && (
        <details className={styles.refusals}>
          <summary>{weighing.refusals.length} that cannot be built, and why</summary>
          <ul>
            {weighing.refusals.map((r) => (
              <li key={r.id}>
                <b>{r.id}</b>: {r.refusal}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

const nameOf = (r: WeighRow): string =>
  `${r.shape ? SHAPE_WORDS[r.shape][0] : r.ask.kind}, order ${r.order}, ${r.name}`;

/** Up to three curves over each other, so that slopes are compared by eye. */
function Overlay({ rows }: { rows: readonly WeighRow[] }) {
  if (rows.length === 0)
    return (
      <p className={styles.hint}>Tick up to three rows to lay their curves over each other.</p>
    );
  const { frequenciesHz } = rows[0].trace;
  const [from, to] = [frequenciesHz[0], frequenciesHz[frequenciesHz.length - 1]];
  const top = Math.max(...rows.flatMap((r) => [...r.trace.levelDb]));
  return (
    <div className={styles.overlay}>
      <MiniPlot
        title="Level"
        summary={rows.map(nameOf).join('; ')}
        lines={rows.map((r, i) => ({
          look: LOOKS[i],
          x: r.trace.frequenciesHz,
          y: r.trace.levelDb,
        }))}
        x={[from, to]}
        y={[top - 66, top + 6]}
        logX
        marks={frequencyTicks(from, to).map((hz) => ({ x: hz, text: frequencyLabel(hz) }))}
        xLabel={frequencyLabel}
        yLabel={(v) => `${v < 0 ? '−' : ''}${Math.abs(v)} dB`}
      />
      <ul className={styles.legend}>
        {rows.map((r, i) => (
          <li key={r.id}>
            <span className={`${styles.key} ${styles[LOOKS[i]]}`} /> {nameOf(r)}
          </li>
        ))}
      </ul>
    </div>
  );
}

const PRICE_WORDS: Record<keyof Prices, string> = {
  resistor: 'Resistor',
  capacitor: 'Capacitor',
  inductor: 'Coil',
  'op-amp': 'Op-amp',
  transconductor: 'Transconductor',
};

/** What parts cost here; kept in this browser. */
function PriceFields() {
  const prices = usePreferences((p) => p.prices);
  const set = usePreferences((p) => p.set);
  return (
    <fieldset className={styles.prices}>
      <legend>Prices</legend>
      {(Object.keys(PRICE_WORDS) as (keyof Prices)[]).map((kind) => (
        <label key={kind}>
          {PRICE_WORDS[kind]}
          <InputNumber
            size="small"
            min={0}
            max={10_000}
            step={0.01}
            controls={false}
            value={prices[kind]}
            onChange={(value) => value !== null && set({ prices: { ...prices, [kind]: value } })}
          />
        </label>
      ))}
    </fieldset>
  );
}

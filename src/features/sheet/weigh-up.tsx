'use client';

import { Button, InputNumber, Popover, Progress, Segmented, Table } from 'antd';
import { X } from 'lucide-react';
import { Activity, memo, useEffect, useMemo, useState, type Key } from 'react';
import type { Ask } from '@/core/design/ask';
import { messageOf } from '@/core/errors';
import { PART_KINDS } from '@/core/parts';
import { DEFAULT_PRICES } from '@/core/weigh/prices';
import type { WeighRefusal, WeighRow } from '@/core/weigh/weigh';
import type { PartChoices } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import type { LayerLook } from '@/ui/chart/layers';
import { useSize } from '@/ui/chart/use-size';
import { takeAsk } from './actions/ask';
import { SHAPE_WORDS } from './ask-words';
import { setUi } from './ui-state';
import { useWeighing, warmWeighing } from './use-weighing';
import { weighColumns, weighedCandidates, weighedRows } from './weigh-columns';
import { COLUMN_GROUPS, type ColumnGroup } from './weigh-figures';
import styles from './weigh-up.module.css';

/** Three at most are laid over the picture, each with a line of its own form. */
const LOOKS: readonly LayerLook[] = ['trial', 'trial-dashed', 'trial-chained'];
/** From this width on every column has room. */
const ALL_COLUMNS = 1500;
const HEAD = 40;

interface WeighUpProps {
  ask: Ask;
  opAmp: PartChoices['opAmp']['model'];
}

/** The weigh-up, which stands ready, hidden and with its worker warm, before it is opened. */
export function WeighUp({ open, ...props }: WeighUpProps & { open: boolean }) {
  const { ask } = props;
  useEffect(() => {
    if (!open) warmWeighing(ask);
  }, [open, ask]);
  return (
    <Activity mode={open ? 'visible' : 'hidden'}>
      <Panel {...props} />
    </Activity>
  );
}

/** Every way of building the ask, side by side, beside the picture that they are laid over. */
const Panel = memo(function Panel({ ask, opAmp }: WeighUpProps) {
  const mark = usePreferences((p) => p.mark);
  const prices = usePreferences((p) => p.prices);
  // Prices change no curve: the table is weighed once and its costs are worked out here.
  const weighing = useWeighing(ask, opAmp, DEFAULT_PRICES);
  const [chosen, setChosen] = useState<string[]>([]);
  const [group, setGroup] = useState<ColumnGroup>('parts');
  const [error, setError] = useState<string>();
  const [host, size] = useSize<HTMLDivElement>();
  const { rows, candidates, running } = weighing;
  const everything = size !== undefined && size.width >= ALL_COLUMNS;
  const shownGroup = everything ? null : group;
  const allRows = running ? null : rows;
  const columns = useMemo(
    () =>
      weighColumns(allRows ? weighedRows(allRows) : weighedCandidates(candidates), {
        group: shownGroup,
        mark,
        prices,
      }),
    [allRows, candidates, shownGroup, mark, prices],
  );
  const overlaid = useMemo(
    () => chosen.flatMap((id) => rows.find((r) => r.id === id) ?? []),
    [chosen, rows],
  );
  useEffect(() => {
    setUi({
      laidOver: overlaid.map((r, i) => ({ name: nameOf(r), look: LOOKS[i], trace: r.trace })),
    });
  }, [overlaid]);
  useEffect(() => () => setUi({ laidOver: [] }), []);
  const take = () => {
    try {
      takeAsk(overlaid[0].ask);
      setError(undefined);
      setChosen([]);
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const done = rows.length + weighing.refusals.length;
  return (
    <section className={styles.weighing} aria-label="Weigh up">
      <div className={styles.head}>
        <h2>Weigh up</h2>
        <div className={styles.state} role="status">
          {running ? (
            <>
              <Progress
                className={styles.progress}
                percent={Math.round((100 * done) / Math.max(1, candidates.length))}
                showInfo={false}
                size="small"
              />
              <Button size="small" onClick={weighing.stop}>
                Stop
              </Button>
            </>
          ) : (
            <span>{rows.length} designs, each solved</span>
          )}
        </div>
        {weighing.refusals.length > 0 && <Refusals refusals={weighing.refusals} />}
        <Popover trigger="click" content={<PriceFields />} destroyOnHidden>
          <Button size="small" type="text">
            Prices
          </Button>
        </Popover>
        <Button
          size="small"
          type="text"
          aria-label="Close the weigh-up"
          icon={<X size={15} />}
          onClick={() => setUi({ weighing: false })}
        />
      </div>
      <div className={styles.choose}>
        {!everything && (
          <Segmented<ColumnGroup>
            size="small"
            aria-label="Columns"
            value={group}
            options={COLUMN_GROUPS}
            onChange={setGroup}
          />
        )}
        <span className={styles.hint}>
          {overlaid.length === 0 && 'Tick up to three to lay them over the picture.'}
        </span>
        <Button type="primary" size="small" disabled={overlaid.length !== 1} onClick={take}>
          {overlaid.length === 1 ? `Take ${nameOf(overlaid[0])}` : 'Tick one to take it'}
        </Button>
      </div>
      {(error ?? weighing.problem) && (
        <p role="alert" className={styles.error}>
          {error ?? weighing.problem}
        </p>
      )}
      <div ref={host} className={styles.table}>
        {/* Drawn without rows too: the first then come to a table that stands. */}
        <Table<WeighRow>
          size="small"
          rowKey="id"
          columns={columns}
          dataSource={rows}
          pagination={false}
          scroll={{ y: Math.max(80, (size?.height ?? 0) - HEAD) }}
          locale={{ emptyText: running ? ' ' : 'None of them can be built.' }}
          showSorterTooltip={false}
          tableLayout="fixed"
          rowSelection={{
            selectedRowKeys: chosen,
            hideSelectAll: true,
            columnWidth: 32,
            onChange: (keys: Key[]) => setChosen(keys.map(String).slice(-LOOKS.length)),
            getCheckboxProps: (r) => ({ 'aria-label': `Lay over ${nameOf(r)}` }),
          }}
        />
      </div>
    </section>
  );
});

const nameOf = (r: WeighRow): string =>
  `${r.shape ? SHAPE_WORDS[r.shape][0] : r.ask.kind}, order ${r.order}, ${r.name}`;

/** What could not be built, each with its reason. */
function Refusals({ refusals }: { refusals: readonly WeighRefusal[] }) {
  return (
    <Popover
      trigger="click"
      destroyOnHidden
      content={
        <ul className={styles.refusals}>
          {refusals.map((r) => (
            <li key={r.id}>
              <b>{r.id}</b>: {r.refusal}
            </li>
          ))}
        </ul>
      }
    >
      <Button size="small" type="text">
        {refusals.length} cannot be built
      </Button>
    </Popover>
  );
}

/** What parts cost here; kept in this browser. */
function PriceFields() {
  const prices = usePreferences((p) => p.prices);
  const set = usePreferences((p) => p.set);
  return (
    <fieldset className={styles.prices}>
      <legend>What one costs</legend>
      {PART_KINDS.filter((k) => k.inDesigns).map(({ kind, noun }) => (
        <label key={kind}>
          {`${noun[0].toUpperCase()}${noun.slice(1)}`}
          <InputNumber
            size="small"
            min={0}
            max={10_000}
            step={0.01}
            controls={false}
            value={prices[kind] ?? DEFAULT_PRICES[kind]}
            onChange={(value) => value !== null && set({ prices: { ...prices, [kind]: value } })}
          />
        </label>
      ))}
    </fieldset>
  );
}

'use client';

import { Button, Checkbox } from 'antd';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { knownKey, workedOut, type BankPicture } from '@/core/bank/bank';
import type { Bank, Channel } from '@/core/bank/schema';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Sheet, Stage, Way } from '@/core/sheet/schema';
import { topologyOf } from '@/core/topologies';
import { kindOfPart } from '@/core/topologies/instantiate';
import { PART_KINDS } from '@/core/topologies/part-kinds';
import { usePreferences } from '@/store/preferences';
import { frequencyLabel, frequencyTicks } from '@/ui/chart/axis';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { EditableQuantity } from '@/ui/controls/quantity-input';
import { attempt } from '../shell/tell';
import { useLens } from '../sheet/use-lens';
import {
  addChannel,
  changeChannel,
  removeChannel,
  setAlternate,
  setKnown,
  setOverlap,
} from './bank-actions';
import styles from './bank-screen.module.css';

/** A bank: all channels over each other and summed, the table of them, and the parts of the chosen one. */
export function BankScreen({ sheet, bank }: { sheet: Sheet; bank: Bank }) {
  const [chosenId, choose] = useState(bank.channels[0].id);
  const index = Math.max(
    0,
    bank.channels.findIndex((c) => c.id === chosenId),
  );
  const channel = bank.channels[index];
  const { picture, problem } = useLens(sheet, { lens: 'bank' });
  return (
    <div className={styles.bank}>
      <section className={styles.picture} aria-label="All channels">
        {picture ? (
          <Overlay picture={picture} chosen={channel.id} />
        ) : (
          <p>{problem ?? 'Solving the channels …'}</p>
        )}
      </section>
      <section className={styles.parts} aria-label="Parts of the chosen channel">
        <Parts channel={channel} way={sheet.ways[index]} picture={picture} />
      </section>
      <section className={styles.table} aria-label="Channels">
        <ChannelTable bank={bank} picture={picture} chosen={channel.id} onChoose={choose} />
      </section>
    </div>
  );
}

function Overlay({ picture, chosen }: { picture: BankPicture; chosen: string }) {
  const { frequenciesHz: x, channels, sumDb } = picture;
  const [from, to] = [x[0], x[x.length - 1]];
  const top = Math.max(...sumDb, ...channels.map((c) => c.peakDb));
  const ordered = [...channels].sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen));
  return (
    <>
      <ul className={styles.legend} aria-label="Lines">
        <li>
          <span className={styles.keyChosen} /> chosen channel
        </li>
        <li>
          <span className={styles.keyOther} /> other channels
        </li>
        <li>
          <span className={styles.keySum} /> sum of all
        </li>
      </ul>
      <MiniPlot
        title="Level of every channel and their sum"
        summary={channels
          .map((c) => `peak ${c.peakDb.toFixed(1)} dB at ${Math.round(c.peakHz)} Hz`)
          .join(', ')}
        lines={[
          ...ordered.map((c) => ({
            look: c.id === chosen ? ('built' as const) : ('input' as const),
            x,
            y: c.levelDb,
          })),
          { look: 'keep' as const, x, y: sumDb },
        ]}
        x={[from, to]}
        y={[Math.ceil(top / 6) * 6 - 48, Math.ceil((top + 1) / 6) * 6]}
        logX
        marks={frequencyTicks(from, to).map((hz) => ({ x: hz, text: frequencyLabel(hz) }))}
        xLabel={frequencyLabel}
        yLabel={(v) => `${v < 0 ? '−' : ''}${Math.abs(v)} dB`}
      />
    </>
  );
}

interface TableProps {
  bank: Bank;
  picture: BankPicture | null;
  chosen: string;
  onChoose: (id: string) => void;
}

function ChannelTable({ bank, picture, chosen, onChoose }: TableProps) {
  const mark = usePreferences((p) => p.mark);
  const most = Math.max(...bank.channels.map((c) => c.stages));
  const db = (x: number | undefined) => (x === undefined ? '' : `${formatFixed(x, 1, mark)} dB`);
  return (
    <>
      <div className={styles.tableHead}>
        <p>
          Neighbours cross{' '}
          <EditableQuantity
            label="Overlap"
            value={bank.overlapDb}
            kind="decibels"
            mark={mark}
            shown={formatQuantity(bank.overlapDb, 'decibels', { unit: true, mark })}
            onCommit={(x) => setOverlap(x!)}
          />{' '}
          down, unless a channel has a width of its own.{' '}
          <Checkbox
            checked={bank.alternate}
            onChange={(e) => attempt(() => setAlternate(e.target.checked))}
          >
            every other channel inverted in the sum
          </Checkbox>
        </p>
        <Button size="small" icon={<Plus size={14} />} onClick={() => attempt(addChannel)}>
          Add a channel
        </Button>
      </div>
      <div className={styles.scroll}>
        <table>
          <thead>
            <tr>
              <th scope="col">Channel</th>
              <th scope="col">Centre</th>
              <th scope="col">Width</th>
              <th scope="col">Stages</th>
              <th scope="col">Gain</th>
              <th scope="col">Known parts</th>
              <th scope="col">Peaks at</th>
              <th scope="col">Peak</th>
              {Array.from({ length: most }, (_, n) => (
                <th scope="col" key={n} title="Level at the centre behind this stage">
                  After stage {n + 1}
                </th>
              ))}
              <th aria-label="Remove" />
            </tr>
          </thead>
          <tbody>
            {bank.channels.map((c, i) => {
              const found = picture?.channels.find((p) => p.id === c.id);
              return (
                <tr key={c.id} className={c.id === chosen ? styles.chosen : undefined}>
                  <th scope="row">
                    <button
                      type="button"
                      onClick={() => onChoose(c.id)}
                      aria-pressed={c.id === chosen}
                    >
                      Channel {i + 1}
                    </button>
                  </th>
                  <td>
                    <EditableQuantity
                      label={`Centre of channel ${i + 1}`}
                      value={c.centreHz}
                      kind="hertz"
                      mark={mark}
                      shown={formatQuantity(c.centreHz, 'hertz', { unit: true, digits: 4, mark })}
                      onCommit={(x) => changeChannel(c.id, { centreHz: x! })}
                    />
                  </td>
                  <td>
                    <EditableQuantity
                      label={`Width of channel ${i + 1}`}
                      value={c.widthHz ?? null}
                      kind="hertz"
                      mark={mark}
                      clearable
                      shown={`${c.widthHz === undefined ? 'by overlap: ' : ''}${found ? formatQuantity(c.widthHz ?? found.widthHz, 'hertz', { unit: true, digits: 3, mark }) : ''}`}
                      onCommit={(x) => changeChannel(c.id, { widthHz: x ?? undefined })}
                    />
                  </td>
                  <td>
                    <EditableQuantity
                      label={`Stages of channel ${i + 1}`}
                      value={c.stages}
                      kind="ratio"
                      mark={mark}
                      shown={`${c.stages}`}
                      onCommit={(x) => changeChannel(c.id, { stages: x! })}
                    />
                  </td>
                  <td>
                    <EditableQuantity
                      label={`Gain of channel ${i + 1}`}
                      value={c.gainDb}
                      kind="decibels"
                      mark={mark}
                      shown={formatQuantity(c.gainDb, 'decibels', { unit: true, mark })}
                      onCommit={(x) => changeChannel(c.id, { gainDb: x! })}
                    />
                  </td>
                  <td>{Object.keys(c.known).length || '–'}</td>
                  <td>
                    {found
                      ? formatQuantity(found.peakHz, 'hertz', { unit: true, digits: 3, mark })
                      : ''}
                  </td>
                  <td>{db(found?.peakDb)}</td>
                  {Array.from({ length: most }, (_, n) => (
                    <td key={n}>{db(found?.budgetDb[n])}</td>
                  ))}
                  <td>
                    <button
                      type="button"
                      aria-label={`Remove channel ${i + 1}`}
                      disabled={bank.channels.length === 1}
                      onClick={() => attempt(() => removeChannel(c.id))}
                    >
                      <Trash2 size={14} aria-hidden />
                    </button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </>
  );
}

const quantityOf = (stage: Stage, part: string) =>
  PART_KINDS[kindOfPart(topologyOf(stage.topology), part)!].quantity;

/** Known and unknown parts of one channel, and where its level goes. */
function Parts({
  channel,
  way,
  picture,
}: {
  channel: Channel;
  way: Way;
  picture: BankPicture | null;
}) {
  const mark = usePreferences((p) => p.mark);
  const exact = workedOut(way);
  const budget = picture?.channels.find((c) => c.id === channel.id)?.budgetDb ?? [];
  const print = (stage: Stage, part: string, value: number) =>
    formatQuantity(value, quantityOf(stage, part), { unit: true, digits: 3, mark });
  return (
    <>
      <h2>Parts at {formatQuantity(channel.centreHz, 'hertz', { unit: true, mark })}</h2>
      <p className={styles.soft}>
        Type a value to make a part known; empty it to have it worked out.
      </p>
      <div className={styles.scroll}>
        <table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Known</th>
              <th scope="col">Built</th>
              <th scope="col">Exact</th>
            </tr>
          </thead>
          <tbody>
            {way.stages.map((stage, n) => [
              <tr key={stage.id} className={styles.stage}>
                <th scope="rowgroup" colSpan={4}>
                  Stage {n + 1},{' '}
                  {formatQuantity(stage.target.f0Hz, 'hertz', { unit: true, digits: 4, mark })}
                  {budget[n] === undefined ? '' : `: leaves ${formatFixed(budget[n], 1, mark)} dB`}
                </th>
              </tr>,
              ...Object.entries(stage.values).map(([part, value]) => {
                const key = knownKey(n, part);
                const known = channel.known[key];
                return (
                  <tr key={key}>
                    <th scope="row">{part}</th>
                    <td>
                      <EditableQuantity
                        label={`Known ${part} of stage ${n + 1}`}
                        value={known ?? null}
                        kind={quantityOf(stage, part)}
                        mark={mark}
                        clearable
                        shown={known === undefined ? 'unknown' : print(stage, part, known)}
                        onCommit={(x) => setKnown(channel.id, key, x)}
                      />
                    </td>
                    <td>{print(stage, part, value)}</td>
                    <td className={styles.soft}>{print(stage, part, exact[key])}</td>
                  </tr>
                );
              }),
            ])}
          </tbody>
        </table>
      </div>
    </>
  );
}

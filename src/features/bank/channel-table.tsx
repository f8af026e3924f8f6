import { Button, Checkbox } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { Plus, Trash2 } from 'lucide-react';
import type { BankPicture } from '@/core/bank/picture';
import type { Bank, Channel } from '@/core/sheet/bank-schema';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';
import { usePreferences } from '@/store/preferences';
import { FigureTable, type FigureColumns } from '@/ui/controls/figure-table';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { levelDrift } from '@/core/bank/recover';
import type { Way } from '@/core/sheet/schema';
import { quantityOfPart } from '@/core/sheet/stage';
import { attempt } from '../shell/tell';
import { addChannel, changeChannel, removeChannel, setAlternate, setOverlap } from './bank-actions';
import { reaches, recoveredOf } from './recovered';
import styles from './bank-screen.module.css';

const KnownWindow = lazy(() => import('./known-window').then((m) => ({ default: m.KnownWindow })));

interface TableProps {
  bank: Bank;
  ways: readonly Way[];
  picture: BankPicture | null;
  chosen: string;
  onChoose: (id: string) => void;
}

/** One channel with what was found of it, and its place in the bank. */
interface Line {
  channel: Channel;
  number: number;
  way: Way;
  found: BankPicture['channels'][number] | undefined;
}

/** Every channel: what is asked of it, and where its level goes. */
export function ChannelTable({ bank, ways, picture, chosen, onChoose }: TableProps) {
  const [pasting, setPasting] = useState(false);
  const mark = usePreferences((p) => p.mark);
  const lines = bank.channels.map((channel, i): Line => ({
    channel,
    number: i + 1,
    way: ways[i],
    found: picture?.channels.find((p) => p.id === channel.id),
  }));
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
          down: <span className={styles.follows}>widths like this</span> follow from that.{' '}
          <Checkbox
            checked={bank.alternate}
            onChange={(e) => attempt(() => setAlternate(e.target.checked))}
          >
            every other channel inverted in the sum
          </Checkbox>
        </p>
        <span className={styles.buttons}>
          <Button size="small" onClick={() => setPasting(true)}>
            Paste known values
          </Button>
          <Button size="small" icon={<Plus size={14} />} onClick={() => attempt(addChannel)}>
            Add a channel
          </Button>
        </span>
      </div>
      {picture && <Drift picture={picture} mark={mark} />}
      {pasting && (
        <Suspense>
          <KnownWindow bank={bank} ways={ways} onClose={() => setPasting(false)} />
        </Suspense>
      )}
      <div className={styles.scroll}>
        <FigureTable<Line>
          rowKey={({ channel }) => channel.id}
          rowClassName={({ channel }) => (channel.id === chosen ? styles.chosen : '')}
          columns={channelColumns(bank, mark, chosen, onChoose)}
          lines={lines}
          empty="There is nothing here yet."
        />
      </div>
    </>
  );
}

/** A level that drifts by less than this is as even as can be heard, dB. */
const EVEN_DB = 0.5;

/** How the level drifts from channel to channel, and in which stage that arises. */
function Drift({ picture, mark }: { picture: BankPicture; mark: DecimalMark }) {
  const drift = levelDrift(picture);
  if (!drift || drift.wholeDb < EVEN_DB) return null;
  const db = (x: number) => `${formatFixed(x, 1, mark)} dB`;
  const stages = drift.stagesDb.map((x, n) => `stage ${n + 1} by ${db(x)}`).join(', ');
  return (
    <p role="status" className={styles.drift}>
      Levels at the centres differ by {db(drift.wholeDb)}: {stages}. It arises in stage{' '}
      {drift.stage + 1}, most of all in channel {drift.channel + 1}, {db(Math.abs(drift.offDb))}{' '}
      {drift.offDb < 0 ? 'under' : 'over'} the middle of all.
    </p>
  );
}

/** What of a channel is edited where it stands. */
type Edited = 'centreHz' | 'widthHz' | 'stages' | 'gainDb';

/** “R2 13.4 kΩ ✓”: what was worked out, and whether its trimmer reaches it. */
function recoveredWords(channel: Channel, way: Way, mark: DecimalMark): string {
  const found = recoveredOf(channel, way);
  if (found.length === 0) return '';
  const [first] = found;
  const { quantity } = quantityOfPart(way.stages[first.stage], first.part)!;
  const value = formatQuantity(first.value, quantity, { unit: true, digits: 3, mark });
  const reached = found.map(reaches).filter((r) => r !== undefined);
  const sign = reached.length === 0 ? '' : reached.every(Boolean) ? ' ✓' : ' ✗';
  const more = found.length > 1 ? ` +${found.length - 1}` : '';
  return `${first.part} ${value}${more}${sign}`;
}

function channelColumns(
  bank: Bank,
  mark: DecimalMark,
  chosen: string,
  onChoose: (id: string) => void,
): FigureColumns<Line> {
  const edited = (
    field: Edited,
    title: string,
    kind: QuantityKind,
    print: (line: Line) => string,
  ): FigureColumns<Line>[number] => ({
    key: field,
    title,
    align: 'right',
    render: (_, line) => {
      const follows = field === 'widthHz' && line.channel.widthHz === undefined;
      return (
        <EditableQuantity
          label={`${title} of channel ${line.number}${follows ? ', by overlap' : ''}`}
          className={follows ? styles.follows : undefined}
          value={line.channel[field] ?? null}
          kind={kind}
          mark={mark}
          clearable={field === 'widthHz'}
          shown={print(line)}
          onCommit={(x) => changeChannel(line.channel.id, { [field]: x ?? undefined })}
        />
      );
    },
  });
  const shown = (
    key: string,
    title: string,
    print: (line: Line) => string,
    help?: string,
  ): FigureColumns<Line>[number] => ({
    key,
    title: help ? <span title={help}>{title}</span> : title,
    align: 'right',
    render: (_, line) => print(line),
  });
  const hz = (x: number, digits = 3) => formatQuantity(x, 'hertz', { unit: true, digits, mark });
  const db = (x: number | undefined) => (x === undefined ? '' : `${formatFixed(x, 1, mark)} dB`);
  const most = Math.max(...bank.channels.map((c) => c.stages));
  return [
    {
      key: 'channel',
      title: 'Channel',
      rowScope: 'row',
      render: (_, { channel: { id }, number }) => (
        <button
          type="button"
          className={styles.plain}
          onClick={() => onChoose(id)}
          aria-pressed={id === chosen}
        >
          Channel {number}
        </button>
      ),
    },
    edited('centreHz', 'Centre', 'hertz', ({ channel }) => hz(channel.centreHz, 4)),
    edited('widthHz', 'Width', 'hertz', ({ channel: { widthHz }, found }) => {
      const shownHz = widthHz ?? found?.widthHz;
      return shownHz === undefined ? '' : hz(shownHz);
    }),
    edited('stages', 'Stages', 'ratio', ({ channel }) => `${channel.stages}`),
    edited('gainDb', 'Gain', 'decibels', ({ channel }) =>
      formatQuantity(channel.gainDb, 'decibels', { unit: true, mark }),
    ),
    shown('known', 'Known', ({ channel }) => `${Object.keys(channel.known).length || '–'}`),
    ...(bank.channels.some((c) => Object.keys(c.known).length > 0)
      ? [
          shown(
            'recovered',
            'Recovered',
            ({ channel, way }) => recoveredWords(channel, way, mark),
            'Parts that were worked out from the known ones, and whether their trimmers reach them',
          ),
        ]
      : []),
    shown('peakHz', 'Peaks at', ({ found }) => (found ? hz(found.peakHz) : '')),
    shown('peak', 'Peak', ({ found }) => db(found?.peakDb)),
    shown(
      'builtWidth',
      'Built width',
      ({ found }) => (found?.builtWidthHz ? hz(found.builtWidthHz) : ''),
      'Between the half-power points about its peak',
    ),
    shown(
      'meets',
      'Meets next',
      ({ found }) =>
        found?.meetsNext ? `${formatFixed(-found.meetsNext.downDb, 1, mark)} dB` : '',
      'Level, from its own peak, at which it meets the next higher channel',
    ),
    ...Array.from({ length: most }, (_, n) =>
      shown(
        `after${n}`,
        `After stage ${n + 1}`,
        ({ found }) => db(found?.budgetDb[n]),
        'Level at the centre behind this stage',
      ),
    ),
    {
      key: 'remove',
      title: <span className="visually-hidden">Remove</span>,
      width: 30,
      render: (_, { channel, number }) => (
        <button
          type="button"
          className={styles.plain}
          aria-label={`Remove channel ${number}`}
          disabled={bank.channels.length === 1}
          onClick={() => attempt(() => removeChannel(channel.id))}
        >
          <Trash2 size={14} aria-hidden />
        </button>
      ),
    },
  ];
}

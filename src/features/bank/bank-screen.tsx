'use client';

import { useState } from 'react';
import type { BankPicture } from '@/core/bank/picture';
import type { Bank } from '@/core/sheet/bank-schema';
import type { Sheet } from '@/core/sheet/schema';
import { frequencyLabel, frequencyTicks } from '@/core/quantity/frequency-ticks';
import { LayerKey, type LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { useLens } from '../sheet/use-lens';
import { ChannelTable } from './channel-table';
import { Parts } from './parts-table';
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
        <ChannelTable
          bank={bank}
          ways={sheet.ways}
          picture={picture}
          chosen={channel.id}
          onChoose={choose}
        />
      </section>
    </div>
  );
}

const LOOKS = { chosen: 'built', other: 'input', sum: 'keep' } as const;

function Overlay({ picture, chosen }: { picture: BankPicture; chosen: string }) {
  const { frequenciesHz: x, channels, sumDb } = picture;
  const [from, to] = [x[0], x[x.length - 1]];
  const top = Math.max(...sumDb, ...channels.map((c) => c.peakDb));
  const ordered = [...channels].sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen));
  return (
    <>
      <ul className={styles.legend} aria-label="Lines">
        <li>
          <LayerKey kind="line" look={LOOKS.chosen} /> chosen channel
        </li>
        <li>
          <LayerKey kind="line" look={LOOKS.other} /> other channels
        </li>
        <li>
          <LayerKey kind="line" look={LOOKS.sum} /> sum of all
        </li>
      </ul>
      <MiniPlot
        title="Level of every channel and their sum"
        summary={channels
          .map((c) => `peak ${c.peakDb.toFixed(1)} dB at ${Math.round(c.peakHz)} Hz`)
          .join(', ')}
        layers={[
          ...ordered.map((c): LineLayer => ({
            kind: 'line',
            id: c.id,
            name: c.id,
            look: c.id === chosen ? LOOKS.chosen : LOOKS.other,
            x,
            y: c.levelDb,
          })),
          { kind: 'line', id: 'sum', name: 'sum', look: LOOKS.sum, x, y: sumDb },
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

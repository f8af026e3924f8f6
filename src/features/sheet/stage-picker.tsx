'use client';

import { Input } from 'antd';
import { useMemo, useState } from 'react';
import { BIAS_STAGES } from '@/core/bias';
import type { BiasStage } from '@/core/bias/stage';
import { CELLS } from '@/core/cells';
import type { Cell } from '@/core/cells/cell';
import { TOPOLOGIES } from '@/core/topologies';
import type { StageKind, Topology } from '@/core/topologies/topology';
import styles from './stage-picker.module.css';

const HEADINGS: Record<StageKind, string> = {
  'low-pass': 'Low-pass',
  'high-pass': 'High-pass',
  'band-pass': 'Band-pass',
  notch: 'Notch',
  'all-pass': 'All-pass',
  peak: 'Peak and dip',
  'low-shelf': 'Bass shelf',
  'high-shelf': 'Treble shelf',
  tilt: 'Tilt',
  gain: 'Gain',
  attenuator: 'Pad',
  network: 'Tone control',
};

/** Every topology by what it does, those of the wanted kind first, narrowed by a few letters. */
export function StagePicker({
  first,
  onPick,
  onPickCell,
  onPickBias,
}: {
  first: StageKind | undefined;
  onPick: (topology: Topology) => void;
  /** Voltage-controlled cells are offered too, where they can stand. */
  onPickCell?: (cell: Cell) => void;
  /** So are transistor stages. */
  onPickBias?: (made: BiasStage) => void;
}) {
  const [text, setText] = useState('');
  const groups = useMemo(() => grouped(text, first), [text, first]);
  const cells = onPickCell
    ? CELLS.filter((c) => isNamed(text, `${c.name} ${c.short} ${CELL_WORDS}`))
    : [];
  const transistors = onPickBias
    ? BIAS_STAGES.filter((s) => isNamed(text, `${s.name} ${s.short} transistor bias`))
    : [];
  return (
    <div className={styles.picker}>
      <Input
        allowClear
        maxLength={60}
        aria-label="Find a stage"
        placeholder="Find: notch, order 5, leapfrog …"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className={styles.list}>
        {groups.map(([kind, list]) => (
          <Group
            key={kind}
            title={HEADINGS[kind]}
            offers={list.map((t) => ({ id: t.id, name: t.name, pick: () => onPick(t) }))}
          />
        ))}
        <Group
          title="Voltage-controlled"
          offers={cells.map((c) => ({
            id: c.id,
            name: `${c.name}: ${c.short}`,
            pick: () => onPickCell?.(c),
          }))}
        />
        <Group
          title="Transistor stages"
          offers={transistors.map((s) => ({
            id: s.id,
            name: s.name,
            pick: () => onPickBias?.(s),
          }))}
        />
        {groups.length + cells.length + transistors.length === 0 && (
          <p className={styles.none}>No stage is called that.</p>
        )}
      </div>
    </div>
  );
}

/** Stages of one kind under their heading; nothing where there is none. */
function Group({
  title,
  offers,
}: {
  title: string;
  offers: readonly { id: string; name: string; pick: () => void }[];
}) {
  if (offers.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3 className={styles.heading}>{title}</h3>
      <ul>
        {offers.map(({ id, name, pick }) => (
          <li key={id}>
            <button type="button" onClick={pick}>
              {name}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What else a cell may be looked for by. */
const CELL_WORDS = 'voltage controlled synthesizer knob control';

const isNamed = (text: string, name: string): boolean =>
  text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => name.toLowerCase().includes(word));

function grouped(text: string, first: StageKind | undefined): [StageKind, Topology[]][] {
  const found = TOPOLOGIES.filter((t) => isNamed(text, `${t.name} ${t.short} ${t.id} ${t.kind}`));
  const kinds = (Object.keys(HEADINGS) as StageKind[]).sort(
    (a, b) => Number(b === first) - Number(a === first),
  );
  return kinds
    .map((kind): [StageKind, Topology[]] => [kind, found.filter((t) => t.kind === kind)])
    .filter(([, list]) => list.length > 0);
}

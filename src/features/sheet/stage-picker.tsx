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
          <section key={kind} aria-label={HEADINGS[kind]}>
            <h3 className={styles.heading}>{HEADINGS[kind]}</h3>
            <ul>
              {list.map((t) => (
                <li key={t.id}>
                  <button type="button" onClick={() => onPick(t)}>
                    {t.name}
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
        {cells.length > 0 && (
          <section aria-label="Voltage-controlled">
            <h3 className={styles.heading}>Voltage-controlled</h3>
            <ul>
              {cells.map((c) => (
                <li key={c.id}>
                  <button type="button" onClick={() => onPickCell?.(c)}>
                    {c.name}: {c.short}
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {transistors.length > 0 && (
          <section aria-label="Transistor stages">
            <h3 className={styles.heading}>Transistor stages</h3>
            <ul>
              {transistors.map((s) => (
                <li key={s.id}>
                  <button type="button" onClick={() => onPickBias?.(s)}>
                    {s.name}
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {groups.length + cells.length + transistors.length === 0 && (
          <p className={styles.none}>No stage is called that.</p>
        )}
      </div>
    </div>
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

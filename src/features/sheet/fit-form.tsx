'use client';

import { Button, Checkbox, InputNumber, Segmented, Select } from 'antd';
import { useEffect, useState } from 'react';
import type { Pairs } from '@/core/fit/offers';
import { formatFixed } from '@/core/quantity/format';
import { SERIES_NAMES } from '@/core/quantity/series';
import type { Layer } from '@/core/sheet/evaluate';
import type { Towards } from '@/core/sheet/fit-way';
import { layerName } from '@/core/sheet/layer-name';
import type { Sheet } from '@/core/sheet/schema';
import { useSheet } from '@/store/sheet-session';
import { usePreferences } from '@/store/preferences';
import { useGo } from '../shell/leave-guard';
import { attempt } from '../shell/tell';
import { changeParts, fitAgain } from './actions/parts';
import { clearFitting, fitParts, stopFitting, useFitting, type FitOutcome } from './fitting';
import { useEvaluated } from './use-evaluation';
import { useTakes } from './use-takes';
import styles from './fit-form.module.css';

const SERIES_OPTIONS = [
  ...SERIES_NAMES.map((n) => ({ value: n, label: n })),
  { value: 'exact' as const, label: 'exact' },
];

/** What is bought from a series. */
const BOUGHT = [
  { kind: 'resistors', noun: 'Resistors' },
  { kind: 'capacitors', noun: 'Capacitors' },
  { kind: 'inductors', noun: 'Coils' },
] as const;

const PAIRS: { value: Pairs; label: string }[] = [
  { value: 'none', label: 'One part' },
  { value: 'parallel', label: 'In parallel' },
  { value: 'series', label: 'In series' },
  { value: 'both', label: 'Either' },
];

/** Where real values come from, and choosing all of them together. */
export function FitForm() {
  const sheet = useSheet();
  return sheet && <Form sheet={sheet} />;
}

function Form({ sheet }: { sheet: Sheet }) {
  const { parts } = sheet;
  const [aim, setAim] = useState(AS_DESIGNED);
  const aims = useAims(sheet);
  const towards = aims.find((a) => a.value === aim)?.towards;
  const { running, found, outcome, problem } = useFitting();
  const [pairs, setPairs] = useState<Pairs>('none');
  const [all, setAll] = useState(false);
  const [drawer, setDrawer] = useState(false);
  const [boards, setBoards] = useState(1);
  const go = useGo();
  useEffect(() => clearFitting, []);
  return (
    <div className={styles.fit}>
      <div className={styles.series}>
        {BOUGHT.map(({ kind, noun }) => (
          <label key={kind}>
            {noun} from
            <Select
              size="small"
              value={parts[kind]}
              options={SERIES_OPTIONS}
              onChange={(series) => attempt(() => changeParts({ [kind]: series }))}
              aria-label={`${noun} from`}
            />
          </label>
        ))}
      </div>
      <label className={styles.pairs}>
        Where one part will not do, two
        <Segmented<Pairs>
          size="small"
          block
          value={pairs}
          options={PAIRS}
          onChange={setPairs}
          aria-label="Two parts for one"
        />
      </label>
      <label className={styles.pairs}>
        Come near to
        <Select<string>
          size="small"
          value={aim}
          options={aims.map(({ value, label }) => ({ value, label }))}
          onChange={setAim}
          aria-label="Come near to"
        />
      </label>
      <Checkbox checked={all} onChange={(e) => setAll(e.target.checked)}>
        Change values that were typed as well
      </Checkbox>
      <div className={styles.fromDrawer}>
        <Checkbox checked={drawer} onChange={(e) => setDrawer(e.target.checked)}>
          Only what lies in the drawer
        </Checkbox>
        {drawer && (
          <label>
            for{' '}
            <InputNumber<number>
              size="small"
              min={1}
              max={1000}
              precision={0}
              value={boards}
              onChange={(value) => setBoards(value ?? 1)}
              aria-label="Boards that the drawer has to do for"
            />{' '}
            {boards === 1 ? 'board' : 'boards'}
          </label>
        )}
      </div>
      {running ? (
        <div className={styles.actions}>
          <Button onClick={stopFitting}>Stop here</Button>
          <span role="status">
            {found === 0
              ? 'Choosing…'
              : `${found} better ${found === 1 ? 'choice' : 'choices'} so far`}
          </span>
        </div>
      ) : (
        <div className={styles.actions}>
          <Button
            type="primary"
            onClick={() =>
              void fitParts({ pairs, all, boards, ...(towards ? { towards } : {}) }, drawer)
            }
          >
            Fit all parts together
          </Button>
          <Button onClick={() => attempt(fitAgain)}>Round each by itself</Button>
        </div>
      )}
      {outcome && <Outcome {...outcome} />}
      {problem !== null && <p role="alert">{problem}</p>}
      <Button block type="link" onClick={() => go(`${window.location.pathname}/parts`)}>
        Parts list: what it takes, what is there, what it costs
      </Button>
    </div>
  );
}

const AS_DESIGNED = 'design';

/** What parts can be chosen to come near to. */
interface Aim {
  value: string;
  label: string;
  towards?: Towards;
}

const NONE: readonly Layer[] = [];

/** The design, the readings of which something is wanted, and the curves that there are. */
function useAims(sheet: Sheet): Aim[] {
  const layers = useEvaluated((e) => e?.layers ?? NONE);
  const takes = useTakes(sheet);
  const curves = [
    ...layers
      .filter(({ id }) => id.startsWith('keep:'))
      .map(({ id, trace }) => ({ id, name: layerName(id, sheet), trace })),
    ...takes.map((take) => ({ id: take.id, name: take.name, trace: take })),
  ];
  return [
    { value: AS_DESIGNED, label: 'what the path is designed to be' },
    ...(sheet.readings.some((r) => r.wanted)
      ? [
          {
            value: 'readings',
            label: 'what is wanted of the readings',
            towards: { is: 'readings' as const },
          },
        ]
      : []),
    ...curves.map(({ id, name, trace: { frequenciesHz, levelDb } }) => ({
      value: id,
      label: `the curve of ${name}`,
      towards: { is: 'curve' as const, curve: { frequenciesHz, levelDb } },
    })),
  ];
}

/** Nearest rounding beside what was found, each with its error. */
function Outcome({ nearest, fitted }: FitOutcome) {
  const mark = usePreferences((p) => p.mark);
  const row = (name: string, { worstDb, missed }: FitOutcome['fitted']) => (
    <tr>
      <th scope="row">{name}</th>
      <td>{formatFixed(worstDb, worstDb < 0.1 ? 3 : 2, mark)} dB</td>
      <td>{missed === 0 ? 'met' : 'missed'}</td>
    </tr>
  );
  return (
    <table className={styles.outcome}>
      <thead>
        <tr>
          <td />
          <th scope="col">off by at most</th>
          <th scope="col">readings</th>
        </tr>
      </thead>
      <tbody>
        {row('Rounded one by one', nearest)}
        {row('Fitted together', fitted)}
      </tbody>
    </table>
  );
}

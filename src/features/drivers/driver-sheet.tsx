import { Button, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { messageOf } from '@/core/errors';
import type { DriverEntry } from '@/core/library/driver';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { isVisible } from '@/core/text';
import { copyDriver, putDriver, removeDriver } from '@/store/drivers';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { download, fileName } from '@/ui/download';
import { attemptStored } from '../shell/tell';
import { DriverPictures } from './driver-pictures';
import { FIGURES } from './figures';
import { TableImport } from './table-import';
import { TableWork } from './table-work';
import styles from './drivers.module.css';

type Model = DriverEntry['model'];

/** Everything that is known of one unit; each change is stored at once, or refused in words. */
export function DriverSheet({
  entry,
  onCopied,
}: {
  entry: DriverEntry;
  onCopied: (id: string) => void;
}) {
  const mark = usePreferences((p) => p.mark);
  const [problem, setProblem] = useState<string | null>(null);
  const { model } = entry;
  const store = (change: Partial<DriverEntry>): void => {
    setProblem(null);
    putDriver({ ...entry, ...change }).catch((error: unknown) => setProblem(messageOf(error)));
  };
  const change = (part: Partial<Model>) => {
    const next = { ...model, ...part };
    for (const name of Object.keys(part) as (keyof Model)[])
      if (part[name] === undefined) delete next[name];
    store({ model: next });
  };
  return (
    <section className={styles.sheet} aria-label={entry.name}>
      <div className={styles.top}>
        <Input
          key={entry.name}
          className={styles.name}
          aria-label="Name"
          defaultValue={entry.name}
          maxLength={120}
          onBlur={(e) => {
            const name = e.target.value.trim();
            if (isVisible(name) && name !== entry.name) store({ name });
          }}
        />
        <Button
          onClick={() =>
            void attemptStored('Nothing was copied', async () =>
              onCopied(await copyDriver(entry, `${entry.name} (copy)`.slice(0, 120))),
            )
          }
        >
          Duplicate
        </Button>
        <Button
          onClick={() =>
            download(
              fileName(entry.name, 'json'),
              `${JSON.stringify(entry, null, 2)}\n`,
              'application/json',
            )
          }
        >
          Export
        </Button>
        <Button
          danger
          type="text"
          onClick={() => void attemptStored('It was not deleted', () => removeDriver(entry))}
        >
          Delete
        </Button>
      </div>
      {problem && (
        <p role="alert" className={styles.bad}>
          {problem}
        </p>
      )}
      <div className={styles.columns}>
        <div className={styles.fields}>
          <dl className={styles.figures} aria-label="Figures">
            {FIGURES.map(({ name, label, kind, unit, about }) => {
              const value = model[name] as number | undefined;
              return (
                <div key={name} title={about}>
                  <dt>{label}</dt>
                  <dd>
                    <EditableQuantity
                      label={`${label}, ${about.toLowerCase()}`}
                      value={value ?? null}
                      kind={kind}
                      mark={mark}
                      clearable
                      shown={
                        value === undefined
                          ? '–'
                          : unit
                            ? `${formatQuantity(value, kind, { mark, digits: 4 })} ${unit}`
                            : formatQuantity(value, kind, { unit: true, mark, digits: 3 })
                      }
                      onCommit={(x) => change({ [name]: x ?? undefined })}
                    />
                  </dd>
                </div>
              );
            })}
          </dl>
          <Mounting model={model} change={change} />
          <Lossy model={model} change={change} />
          <label className={styles.line}>
            Beams as
            <Select
              size="small"
              aria-label="Beams as"
              value={model.directivity}
              options={[
                { value: 'piston', label: 'a flat round piston' },
                { value: 'even', label: 'evenly into half space' },
              ]}
              onChange={(directivity) => change({ directivity })}
            />
          </label>
          <TableImport
            level={model.measured?.level}
            onTake={(measured) => change({ measured: { ...model.measured, ...measured } })}
          />
          <TableWork measured={model.measured} onChange={(measured) => change({ measured })} />
          {entry.note && <p className={styles.quiet}>{entry.note}</p>}
        </div>
        <DriverPictures model={model} />
      </div>
    </section>
  );
}

interface PartProps {
  model: Model;
  change: (part: Partial<Model>) => void;
}

function Mounting({ model, change }: PartProps) {
  const mounting = model.mounting ?? { kind: 'open' as const };
  const litres = mounting.kind === 'open' ? 10 : mounting.litres;
  return (
    <div className={styles.line}>
      <label>
        In a box{' '}
        <Select
          size="small"
          aria-label="Box"
          value={mounting.kind}
          options={[
            { value: 'open', label: 'open' },
            { value: 'closed', label: 'closed' },
            { value: 'vented', label: 'vented' },
          ]}
          onChange={(kind) =>
            change({
              mounting:
                kind === 'open'
                  ? { kind }
                  : kind === 'closed'
                    ? { kind, litres }
                    : { kind, litres, tuningHz: Math.round(model.fsHz ?? 40), leakQ: 10 },
            })
          }
        />
      </label>
      {mounting.kind !== 'open' && (
        <InputNumber<number>
          size="small"
          aria-label="Volume, litres"
          suffix="l"
          min={0.01}
          value={mounting.litres}
          onChange={(x) => x !== null && change({ mounting: { ...mounting, litres: x } })}
        />
      )}
      {mounting.kind === 'vented' && (
        <>
          <InputNumber<number>
            size="small"
            aria-label="Tuning, hertz"
            suffix="Hz"
            min={1}
            value={mounting.tuningHz}
            onChange={(x) => x !== null && change({ mounting: { ...mounting, tuningHz: x } })}
          />
          <InputNumber<number>
            size="small"
            aria-label="Q by leaks"
            prefix="Ql"
            min={0.1}
            value={mounting.leakQ ?? null}
            onChange={(x) => change({ mounting: { ...mounting, leakQ: x ?? undefined } })}
          />
        </>
      )}
    </div>
  );
}

/** The second inductance that eddy currents lie across. */
function Lossy({ model, change }: PartProps) {
  const mark = usePreferences((p) => p.mark);
  const lossy = model.lossyInductance;
  if (!lossy)
    return (
      <Button
        size="small"
        type="text"
        onClick={() => change({ lossyInductance: { henries: 0.3e-3, ohms: 8 } })}
      >
        + lossy inductance
      </Button>
    );
  return (
    <div className={styles.line}>
      Lossy inductance{' '}
      <EditableQuantity
        label="Lossy inductance"
        value={lossy.henries}
        kind="henries"
        mark={mark}
        shown={formatQuantity(lossy.henries, 'henries', { unit: true, mark, digits: 3 })}
        onCommit={(henries) => change({ lossyInductance: { ...lossy, henries: henries! } })}
      />
      across{' '}
      <EditableQuantity
        label="Resistance across the lossy inductance"
        value={lossy.ohms}
        kind="ohms"
        mark={mark}
        shown={`${formatFixed(lossy.ohms, 1, mark)} Ω`}
        onCommit={(ohms) => change({ lossyInductance: { ...lossy, ohms: ohms! } })}
      />
      <Button size="small" type="text" onClick={() => change({ lossyInductance: undefined })}>
        none
      </Button>
    </div>
  );
}

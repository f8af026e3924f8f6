import { useEffect } from 'react';
import type { BiasPicture } from '@/core/lenses/bias';
import { biasStageOf } from '@/core/bias';
import type { SolvedBias } from '@/core/bias/solved';
import type { BiasAsk } from '@/core/bias/stage';
import { ReedError } from '@/core/errors';
import type { BoundedKind } from '@/core/quantity/bounds';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Sheet, Stage } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { attempt } from '../shell/tell';
import { askBias, becomeBias } from './actions/bias';
import { bounded } from './bounded';
import { LensState } from './lens-state';
import { setUi, useUi } from './ui-state';
import { useLens } from './use-lens';
import styles from './bias-lens.module.css';
import words from './word.module.css';

/** How a transistor stage rests and what it does: by rule of thumb, solved, and as it could be. */
export function BiasLens({ sheet }: { sheet: Sheet }) {
  const chosen = useUi((s) => s.stageId);
  const planned = sheet.ways[0].stages.filter((s) => s.bias);
  const stage = planned.find((s) => s.id === chosen) ?? planned[0];
  if (!stage)
    return (
      <LensState problem={null} stale={false}>
        <div data-picture>
          <p>
            No transistor stage is planned here. Add one at any joint of the path: a follower, a
            common emitter, a feedback pair. Its rest is picked and written down here.
          </p>
        </div>
      </LensState>
    );
  return <Card key={stage.id} sheet={sheet} stage={stage} />;
}

function Card({ sheet, stage }: { sheet: Sheet; stage: Stage }) {
  const mark = usePreferences((p) => p.mark);
  const { picture, problem, stale } = useLens(sheet, { lens: 'bias', stage: stage.id });
  // What is known of each transistor stands on the drawing too.
  const shown = stale ? null : picture;
  useEffect(() => {
    setUi({ atRest: shown ? restWords(shown, mark) : {} });
    return () => setUi({ atRest: {} });
  }, [shown, mark]);
  return (
    <LensState problem={problem} stale={stale}>
      <div className={styles.card} data-picture>
        <AskLine stage={stage} />
        {picture ? (
          <div className={styles.tables} data-figures data-behind={stale || undefined}>
            <AtRest picture={picture} />
            <Small picture={picture} />
            <Improve stage={stage} picture={picture} />
          </div>
        ) : (
          !problem && <p>Finding where it rests …</p>
        )}
        <p className={styles.about}>{biasStageOf(stage.bias?.stage)?.about}</p>
        <p className={styles.about}>
          A supply of more than some tens of volts, and a transistor that is hot to the touch, are
          for qualified hands: let what was on cool, and its capacitors empty, before you touch it.
        </p>
      </div>
    </LensState>
  );
}

const FIELDS: {
  field: keyof BiasAsk;
  kind: BoundedKind | 'ratio';
  label: string;
  before: string;
}[] = [
  { field: 'volts', kind: 'volts', label: 'Supply', before: ' on ' },
  { field: 'amps', kind: 'amps', label: 'Current at rest', before: ', resting at ' },
  { field: 'gain', kind: 'ratio', label: 'Gain', before: ', a gain of ' },
  { field: 'sourceOhms', kind: 'ohms', label: 'Source', before: ', from ' },
  { field: 'loadOhms', kind: 'ohms', label: 'Load', before: ' into ' },
];

/** What it is planned from: each word is edited where it stands, and all values follow. */
function AskLine({ stage }: { stage: Stage }) {
  const mark = usePreferences((p) => p.mark);
  const made = biasStageOf(stage.bias?.stage);
  const ask = stage.bias!.ask;
  return (
    <p className={styles.ask}>
      {made?.name}
      {FIELDS.filter(({ field }) => field !== 'gain' || made?.hasGain).map(
        ({ field, kind, label, before }) => (
          <span key={field}>
            {before}
            <EditableQuantity
              label={label}
              kind={kind}
              value={ask[field]}
              shown={formatQuantity(ask[field], kind, { digits: 3, unit: true, mark })}
              mark={mark}
              onCommit={(value) => {
                const take = (chosen: number) => askBias(stage.id, { [field]: chosen });
                if (kind !== 'ratio') bounded(label, kind, take)(value);
                else if (value! >= 1 && value! <= 1000) take(value!);
                else throw new ReedError('range', `${label} must lie between 1 and 1000.`);
              }}
            />
          </span>
        ),
      )}
      : values are chosen anew with every word.
    </p>
  );
}

const printer = (mark: DecimalMark) => ({
  volts: (v: number) => `${formatFixed(v, 2, mark)} V`,
  amps: (a: number) => formatQuantity(a, 'amps', { digits: 3, unit: true, mark }),
  ohms: (r: number) => formatQuantity(r, 'ohms', { digits: 3, unit: true, mark }),
  watts: (w: number) => `${formatFixed(w * 1000, 1, mark)} mW`,
  gain: (g: number) => formatFixed(g, 2, mark),
  db: (x: number) => `${formatFixed(x, 2, mark)} dB`,
});

function restWords({ solved, names }: BiasPicture, mark: DecimalMark): Record<string, string> {
  const { volts, amps, watts } = printer(mark);
  return Object.fromEntries(
    Object.entries(solved.rest).map(([q, r]) => [
      names[q],
      `${volts(r.collector)}, ${amps(r.amps)}\n${watts(r.watts)}, ${volts(r.marginVolts)} left`,
    ]),
  );
}

function AtRest({ picture: { rules, solved, stiffness, names } }: { picture: BiasPicture }) {
  const mark = usePreferences((p) => p.mark);
  const { volts, amps, watts } = printer(mark);
  return (
    <table className={styles.table} aria-label="At rest">
      <thead>
        <tr>
          <th scope="col">At rest</th>
          <th scope="col">base</th>
          <th scope="col">emitter</th>
          <th scope="col">collector</th>
          <th scope="col">current</th>
          <th scope="col">heat</th>
          <th scope="col">to saturation</th>
        </tr>
      </thead>
      <tbody>
        {Object.entries(solved.rest).map(([q, r]) => (
          <tr key={q}>
            <th scope="row">{names[q]}, solved</th>
            <td>{volts(r.base)}</td>
            <td>{volts(r.emitter)}</td>
            <td>{volts(r.collector)}</td>
            <td>{amps(r.amps)}</td>
            <td>{watts(r.watts)}</td>
            <td>{volts(r.marginVolts)}</td>
          </tr>
        ))}
        {Object.entries(rules.rest).map(([q, r]) => (
          <tr key={`rule ${q}`} className={styles.rule}>
            <th scope="row">{names[q]}, 0.6 V</th>
            <td>{volts(r.base)}</td>
            <td>{volts(r.emitter)}</td>
            <td>{volts(r.collector)}</td>
            <td>{amps(r.amps)}</td>
            <td>–</td>
            <td>–</td>
          </tr>
        ))}
        <tr>
          <th scope="row">Swings</th>
          <td colSpan={6} className={styles.words}>
            ±{volts(solved.swingVolts)} at its output
            {stiffness !== null &&
              `; its divider carries ${formatFixed(stiffness, 1, mark)} times what the base takes (ten by rule of thumb)`}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

function Small({ picture: { rules, solved, ask } }: { picture: BiasPicture }) {
  const mark = usePreferences((p) => p.mark);
  const { ohms, gain, db } = printer(mark);
  const rows: [string, string, string][] = [
    ['Gain', gain(rules.gain), gain(solved.gain)],
    ['Input', ohms(rules.inputOhms), ohms(solved.inputOhms)],
    ['Output', ohms(rules.outputOhms), ohms(solved.outputOhms)],
    [
      'Takes from the stage before',
      db(20 * Math.log10(rules.inputOhms / (rules.inputOhms + ask.sourceOhms))),
      db(solved.sourceDb),
    ],
    [
      'Loses into the load',
      db(20 * Math.log10(ask.loadOhms / (ask.loadOhms + rules.outputOhms))),
      db(solved.loadDb),
    ],
  ];
  return (
    <table className={styles.table} aria-label="For a small signal">
      <thead>
        <tr>
          <th scope="col">For a small signal</th>
          <th scope="col">rule of thumb</th>
          <th scope="col">solved</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, rule, exact]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className={styles.rule}>{rule}</td>
            <td>{exact}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What it could become, each solved for the same ask. */
function Improve({ stage, picture }: { stage: Stage; picture: BiasPicture }) {
  const mark = usePreferences((p) => p.mark);
  const { ohms, gain, db } = printer(mark);
  const cells = (s: SolvedBias) => (
    <>
      <td>{gain(s.gain)}</td>
      <td>{ohms(s.inputOhms)}</td>
      <td>{ohms(s.outputOhms)}</td>
      <td>{db(s.sourceDb)}</td>
    </>
  );
  return (
    <table className={styles.table} aria-label="Before and after">
      <thead>
        <tr>
          <th scope="col">Before and after</th>
          <th scope="col">gain</th>
          <th scope="col">input</th>
          <th scope="col">output</th>
          <th scope="col">takes</th>
          <th scope="col" aria-label="Do it" />
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">as it is</th>
          {cells(picture.solved)}
          <td />
        </tr>
        {picture.others.map(({ to, by, name, solved }) => (
          <tr key={to}>
            <th scope="row">by {by}</th>
            {cells(solved)}
            <td>
              <button
                type="button"
                className={words.word}
                aria-label={`use it: ${name}`}
                title={name}
                onClick={() => attempt(() => becomeBias(stage.id, to))}
              >
                use it
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

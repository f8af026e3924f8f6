import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import type { ControlPicture } from '@/core/lenses/control';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import type { Control, Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { levelAxis } from '@/ui/chart/axis';
import { LayerKey, type LineLayer } from '@/ui/chart/layers';
import { ControlChoice } from './control-choice';
import { ControlCourse, COURSES, type CourseName } from './control-course';
import { ControlDrive } from './control-drive';
import { ControlPluck } from './control-pluck';
import { ControlTable } from './control-table';
import { alikeWherever, printGiven, givenAt } from './control-words';
import { LensState } from './lens-state';
import { OverFrequency } from './over-frequency';
import { useAlike } from './use-alike';
import { useLens } from './use-lens';
import styles from './control-lens.module.css';

/** What a control of a voltage-controlled filter does over its travel, solved anew at each place. */
export function ControlLens({ sheet }: { sheet: Sheet }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const controls = sheet.controls.filter((c) => c.moves.length > 0);
  const control = controls.find((c) => c.id === chosen) ?? controls[0];
  if (!control)
    return (
      <LensState problem={null} stale={false}>
        <div data-picture>
          <p>
            Nothing is controlled here yet. Choose a resistor in the circuit and make it a knob, or
            begin a sheet with a voltage-controlled filter: what its control does is drawn here.
          </p>
        </div>
      </LensState>
    );
  return (
    <Along
      key={control.id}
      sheet={sheet}
      control={control}
      choose={
        <ControlChoice
          label="Which control"
          controls={controls}
          value={control.id}
          onChoose={setChosen}
        />
      }
    />
  );
}

/** What bears on what a control does, besides the controls themselves. */
const COURSE = ['ways', 'source', 'parts', 'view'] as const;

/** What is shown below the family of curves. */
type Shown = CourseName | 'pluck' | 'table';

function Along({
  sheet,
  control,
  choose,
}: {
  sheet: Sheet;
  control: Control;
  choose: React.ReactNode;
}) {
  const alike = useMemo(() => alikeWherever(control.id, COURSE), [control.id]);
  const settled = useAlike(sheet, alike);
  const { picture, problem, stale } = useLens(settled, { lens: 'control', control: control.id });
  const [asked, setAsked] = useState<Shown | null>(null);
  if (!picture)
    return (
      <LensState problem={problem} stale={stale}>
        {!problem && <p>Solving the filter along its control …</p>}
      </LensState>
    );
  const courses = COURSES.filter((c) => c.id !== 'away' || picture.cents !== null);
  const course = courses.find((c) => c.id === asked) ?? courses[0];
  const other = asked === 'table' || (asked === 'pluck' && picture.pluck) ? asked : null;
  return (
    <LensState problem={problem} stale={stale}>
      <div className={styles.lens} data-figures data-behind={stale || undefined}>
        <div className={styles.head}>
          {choose}
          <LawWords picture={picture} />
          <ControlDrive sheet={sheet} control={control} />
        </div>
        <Family sheet={sheet} control={control} picture={picture} />
        <div className={styles.switch}>
          <Segmented<Shown>
            size="small"
            aria-label="What is drawn over the control"
            value={other ?? course.id}
            options={[
              ...courses.map(({ id, title }) => ({ value: id, label: title })),
              ...(picture.pluck ? [{ value: 'pluck' as const, label: 'Plucked' }] : []),
              { value: 'table' as const, label: 'Table' },
            ]}
            onChange={setAsked}
          />
          <TrimWords control={control} picture={picture} />
        </div>
        {other === 'pluck' && picture.pluck ? (
          <ControlPluck pluck={picture.pluck} />
        ) : other === 'table' ? (
          <ControlTable sheet={sheet} control={control} picture={picture} />
        ) : (
          <ControlCourse control={control} picture={picture} course={course.id} />
        )}
      </div>
    </LensState>
  );
}

/** What the control is meant to do, and how far it reaches. */
function LawWords({ picture: { rows, measuredBy } }: { picture: ControlPicture }) {
  const mark = usePreferences((p) => p.mark);
  const reached = rows.flatMap((r) => r.hz ?? []);
  const hz = (value: number) => formatQuantity(value, 'hertz', { digits: 3, unit: true, mark });
  return (
    <span>
      {reached.length > 0 ? (
        <>
          Reaches <b>{hz(Math.min(...reached))}</b> to <b>{hz(Math.max(...reached))}</b>,{' '}
          {measuredBy === 'pair'
            ? 'where its sharpest pair of poles is'
            : 'where half the power passes'}
        </>
      ) : (
        'No cut-off anywhere on its travel'
      )}
    </span>
  );
}

/** What two trimmers can do about it. */
function TrimWords({
  control,
  picture: { trim, cents },
}: {
  control: Control;
  picture: ControlPicture;
}) {
  const mark = usePreferences((p) => p.mark);
  if (!cents) return null;
  const worst = Math.max(...cents.filter((c) => !Number.isNaN(c)).map(Math.abs));
  const fixed = (value: number, digits = 1) => formatFixed(value, digits, mark);
  const places = trim?.zeroAt.map((at) => printGiven(control, givenAt(control, at), mark, 2)) ?? [];
  return (
    <span title="Tuned half way. The scale is how many volts make an octave; the trims are those that leave the least at worst.">
      at worst <b>{fixed(worst)} cents</b>
      {trim && (
        <>
          ; scale {fixed(trim.scale * 100, 2)} % and {fixed(trim.cents)} cents leave{' '}
          <b>±{fixed(trim.leavesCents)}</b>
          {places.length > 0 && `: trim at ${places.join(' and ')}`}
        </>
      )}
    </span>
  );
}

/** Every so many places one curve of the family. */
const EVERY = 3;

function Family({
  sheet: { view },
  control,
  picture,
}: {
  sheet: Sheet;
  control: Control;
  picture: ControlPicture;
}) {
  const { rows, frequenciesHz } = picture;
  const here = Math.round(control.at * (rows.length - 1));
  const mark = usePreferences((p) => p.mark);
  const layers = useMemo<LineLayer[]>(() => {
    const line = (k: number): LineLayer => ({
      kind: 'line',
      id: `at ${k}`,
      name: `at ${k}`,
      look: k === here ? 'built' : 'input',
      x: frequenciesHz,
      y: rows[k].levelDb,
    });
    const others = rows.flatMap((_, k) => (k % EVERY === 0 && k !== here ? line(k) : []));
    return [...others, line(here)];
  }, [rows, frequenciesHz, here]);
  const y = useMemo(() => {
    const { domain, ticks } = levelAxis(rows.map((r) => r.levelDb));
    return {
      domain,
      ticks: ticks.map((value) => ({ value, text: `${formatFixed(value, 0)} dB` })),
    };
  }, [rows]);
  return (
    <>
      <div className={styles.keys}>
        <span className={styles.key}>
          <LayerKey kind="line" look="built" /> at{' '}
          {printGiven(control, givenAt(control, rows[here].at), mark)}
        </span>
        <span className={styles.key}>
          <LayerKey kind="line" look="input" /> each eighth of the travel
        </span>
      </div>
      <OverFrequency
        title="Level along the control"
        fromHz={view.fromHz}
        toHz={view.toHz}
        layers={layers}
        y={y}
      />
    </>
  );
}

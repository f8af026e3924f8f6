import { Segmented, Select } from 'antd';
import { useMemo, useState } from 'react';
import { mainHz } from '@/core/design/ask';
import type { ScopePicture } from '@/core/lenses/scope';
import { formatQuantity } from '@/core/quantity/format';
import { layerName } from '@/core/sheet/layer-name';
import type { Sheet } from '@/core/sheet/schema';
import type { SteadyWave } from '@/core/synth/steady';
import { usePreferences } from '@/store/preferences';
import { LayerKey, type LayerLook, type LineLayer } from '@/ui/chart/layers';
import { MiniPlot } from '@/ui/chart/mini-plot';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { bounded } from './bounded';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import { WAVE_CHOICES } from './wave-words';
import styles from './control-lens.module.css';
import words from './word.module.css';

/** More would not be told apart. */
const MOST_NETS = 4;
const LOOKS: readonly LayerLook[] = ['way-1', 'way-2', 'way-3', 'way-4'];
/** Of what stands at a net before an edit. */
const HELD: LayerLook = 'trial-dashed';

/** One line of the picture: what it is, and its course. */
interface Course {
  id: string;
  name: string;
  look: LayerLook;
  volts: Float64Array;
}

/** Any nets over one cycle, on one scale, as the bent circuit has them. */
export function ScopeLens({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const [wave, setWave] = useState<SteadyWave>('saw');
  const [asked, setHz] = useState<number | null>(null);
  const [level, setLevel] = useState<number | null>(null);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [held, setHeld] = useState<readonly Course[] | null>(null);
  const hz = asked ?? Number((mainHz(sheet.ask) / 5).toPrecision(2));
  const volts = level ?? sheet.source.volts;
  const { picture, problem, stale } = useLens(sheet, {
    lens: 'scope',
    wave,
    hz,
    volts,
    nets: chosen,
  });
  const courses = useMemo(
    () => (picture ? coursesOf(sheet, picture, chosen) : []),
    [sheet, picture, chosen],
  );
  const shown = [
    ...(held ?? []).map((c) => ({ ...c, id: `held ${c.id}`, look: HELD })),
    ...courses,
  ];
  return (
    <LensState problem={problem ?? picture?.layers.problems[0] ?? null} stale={stale}>
      <div className={styles.scope} data-figures data-behind={stale || undefined}>
        <div className={styles.head}>
          <Segmented<SteadyWave>
            size="small"
            aria-label="Wave of the source"
            value={wave}
            options={WAVE_CHOICES}
            onChange={setWave}
          />
          <span>
            at{' '}
            <EditableQuantity
              label="Frequency"
              kind="hertz"
              value={hz}
              shown={formatQuantity(hz, 'hertz', { digits: 3, unit: true, mark })}
              mark={mark}
              onCommit={bounded('The frequency', 'hertz', setHz)}
            />
            , ±
            <EditableQuantity
              label="Level of the source"
              kind="volts"
              value={volts}
              shown={formatQuantity(volts, 'volts', { digits: 3, unit: true, mark })}
              mark={mark}
              onCommit={bounded('The level', 'volts', setLevel)}
            />
          </span>
          <Select
            className={styles.nets}
            size="small"
            mode="multiple"
            maxCount={MOST_NETS}
            aria-label="Nets that are looked at"
            placeholder="Look at nets inside …"
            value={[...chosen]}
            options={(picture?.nets ?? [])
              .filter(({ net }) => net !== 'in' && net !== 'out')
              .map(({ net, name }) => ({ value: net, label: name }))}
            optionFilterProp="label"
            onChange={setChosen}
          />
          {picture && (
            <button
              type="button"
              className={words.word}
              aria-pressed={held !== null}
              title="Keep what is shown as dashed lines, and edit: before and after stand together"
              onClick={() => setHeld(held ? null : courses)}
            >
              {held ? 'let go what was held' : 'hold this'}
            </button>
          )}
        </div>
        <div className={styles.keys}>
          {courses.map(({ id, name, look, volts: course }) => (
            <span key={id} className={styles.key}>
              <LayerKey kind="line" look={look} /> {name}{' '}
              <span className="mono">{swing(course, mark)}</span>
            </span>
          ))}
          {held && (
            <span className={styles.key}>
              <LayerKey kind="line" look={HELD} /> held
            </span>
          )}
        </div>
        {picture ? (
          <Scope courses={shown} seconds={picture.seconds} />
        ) : (
          !problem && <p>Running it until it repeats …</p>
        )}
        {picture && !picture.repeats && (
          <p className={styles.note}>
            It does not repeat itself: it sings by itself, or creeps. This is the last of many
            cycles.
          </p>
        )}
      </div>
    </LensState>
  );
}

/** From its lowest to its highest. */
const swing = (volts: Float64Array, mark: 'point' | 'comma'): string =>
  `${formatQuantity(Math.max(...volts) - Math.min(...volts), 'volts', { digits: 3, unit: true, mark })} p–p`;

function coursesOf(sheet: Sheet, picture: ScopePicture, chosen: readonly string[]): Course[] {
  const built = picture.layers.layers.find((l) => l.id === 'built')?.value ?? {};
  const name = (net: string) => picture.nets.find((n) => n.net === net)?.name ?? net;
  const course = (net: string, look: LayerLook): Course[] =>
    net in built ? [{ id: net, name: name(net), look, volts: built[net] }] : [];
  const keeps = picture.layers.layers.flatMap(({ id, value }): Course[] =>
    id !== 'built' && 'out' in value
      ? [{ id, name: `output, ${layerName(id, sheet)}`, look: 'keep', volts: value.out }]
      : [],
  );
  return [
    ...course('in', 'input'),
    ...keeps,
    ...chosen.flatMap((net, k) => course(net, LOOKS[k % LOOKS.length])),
    ...course('out', 'built'),
  ];
}

function Scope({ courses, seconds }: { courses: readonly Course[]; seconds: Float64Array }) {
  const mark = usePreferences((p) => p.mark);
  const layers = courses.map(({ id, name, look, volts }): LineLayer => ({
    kind: 'line',
    id,
    name,
    look,
    x: seconds,
    y: volts,
  }));
  const all = courses.flatMap((c) => Array.from(c.volts));
  const [low, high] = [Math.min(0, ...all), Math.max(0, ...all)];
  const room = 0.06 * (high - low) || 1;
  return (
    <MiniPlot
      title="One cycle, against ground, all on one scale"
      summary={courses.map(({ name, volts }) => `${name} ${swing(volts, mark)}`).join(', ')}
      layers={layers}
      x={[0, seconds[seconds.length - 1]]}
      y={[low - room, high + room]}
      xLabel={(t) => formatQuantity(t, 'seconds', { unit: true, digits: 3, mark })}
      yLabel={(v) => formatQuantity(v, 'volts', { unit: true, digits: 3, mark })}
    />
  );
}

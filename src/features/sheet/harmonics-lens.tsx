'use client';

import { Segmented } from 'antd';
import { useState } from 'react';
import { mainHz } from '@/core/design/ask';
import { layerName } from '@/core/sheet/layer-name';
import type { HarmonicsPicture, HarmonicWave } from '@/core/lenses/harmonics';
import { formatQuantity } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { Slider } from '@/ui/controls/slider';
import { bounded } from './bounded';
import { ChoiceWord } from './choice-word';
import { givenAt, printGiven } from './control-words';
import { Spectrum, Waves } from './harmonic-pictures';
import { LensState } from './lens-state';
import { useLens } from './use-lens';
import styles from './harmonics-lens.module.css';

/** A square or a saw through the filter, harmonic by harmonic, while its cut-off is moved. */
export function HarmonicsLens({ sheet }: { sheet: Sheet }) {
  const mark = usePreferences((p) => p.mark);
  const [wave, setWave] = useState<HarmonicWave>('saw');
  const [fundamental, setFundamental] = useState<number | null>(null);
  const [octaves, setOctaves] = useState(0);
  const [slope, setSlope] = useState<SlopeChoice>('none');
  const fundamentalHz = fundamental ?? Number((mainHz(sheet.ask) / 5).toPrecision(2));
  const moving = sheet.controls.find((c) => c.for === 'cut-off');
  const [turned, setTurned] = useState<number | null>(null);
  const at = turned ?? moving?.at ?? 0;
  const { picture, problem, stale } = useLens(sheet, {
    lens: 'harmonics',
    wave,
    fundamentalHz,
    shift: moving ? 1 : 2 ** octaves,
    ...(moving ? { control: { id: moving.id, at } } : {}),
  });
  const hz = (value: number) => formatQuantity(value, 'hertz', { unit: true, digits: 3, mark });
  return (
    <div className={styles.lens}>
      <div className={styles.controls}>
        <Segmented<HarmonicWave>
          size="small"
          aria-label="Wave"
          value={wave}
          options={[
            { value: 'saw', label: 'Saw' },
            { value: 'square', label: 'Square' },
          ]}
          onChange={setWave}
        />
        <span>
          at{' '}
          <EditableQuantity
            label="Fundamental"
            value={fundamentalHz}
            kind="hertz"
            mark={mark}
            shown={hz(fundamentalHz)}
            onCommit={bounded('The fundamental', 'hertz', setFundamental)}
          />
        </span>
        <label className={styles.slider}>
          {moving ? (
            <>
              {moving.name} at{' '}
              <span className="mono">{printGiven(moving, givenAt(moving, at), mark)}</span>
              <Slider
                className={styles.octaves}
                label={`${moving.name}, for this picture`}
                min={0}
                max={100}
                value={Math.round(at * 100)}
                onChange={(percent) => setTurned(percent / 100)}
              />
            </>
          ) : (
            <>
              Cut-off at <span className="mono">{hz(mainHz(sheet.ask) * 2 ** octaves)}</span>
              <Slider
                className={styles.octaves}
                label="Cut-off, octaves away"
                min={-3}
                max={3}
                step={1 / 12}
                value={octaves}
                onChange={setOctaves}
              />
            </>
          )}
        </label>
        <span>
          beside it{' '}
          <ChoiceWord<SlopeChoice>
            label="Beside it"
            value={slope}
            choices={SLOPES}
            onChoose={setSlope}
          />
        </span>
      </div>
      <LensState problem={problem ?? picture?.layers.problems[0] ?? null} stale={stale}>
        {picture ? (
          <Pictures sheet={sheet} picture={picture} fundamentalHz={fundamentalHz} slope={slope} />
        ) : (
          !problem && <p>Working out the harmonics …</p>
        )}
      </LensState>
    </div>
  );
}

type SlopeChoice = 'none' | 'gentle' | 'steep';

/** Slopes that can stand beside the filter, at the place where it cuts off. */
const SLOPES: { value: SlopeChoice; word: string; line: string }[] = [
  { value: 'none', word: 'nothing', line: 'Nothing' },
  { value: 'gentle', word: 'a gentle slope', line: 'A gentle slope: 6 dB an octave' },
  { value: 'steep', word: 'a steep slope', line: 'A steep slope: 48 dB an octave' },
];

function Pictures({
  sheet,
  picture,
  fundamentalHz,
  slope,
}: {
  sheet: Sheet;
  picture: HarmonicsPicture;
  fundamentalHz: number;
  slope: SlopeChoice;
}) {
  const mark = usePreferences((p) => p.mark);
  const { layers, slopes, cutOffHz, volts } = picture;
  const built = layers.layers.find((l) => l.id === 'built') ?? layers.layers[0];
  const ideal = layers.layers.find((l) => l.id === 'ideal');
  const beside = slope === 'none' ? null : slopes?.[slope];
  const { line } = SLOPES.find((s) => s.value === slope)!;
  return (
    <div className={styles.pictures} data-beside={beside ? true : undefined}>
      <Spectrum
        title="Harmonics in (outlined) and out, dB re the source"
        picture={picture}
        out={built?.value}
        ideal={ideal?.value}
      />
      <Waves
        title={`The wave in and out, source ±${formatQuantity(volts, 'volts', { unit: true, mark })}`}
        summary={layers.layers.map(({ id }) => layerName(id, sheet)).join(', ')}
        picture={picture}
        fundamentalHz={fundamentalHz}
        out={layers.layers}
      />
      {beside && (
        <>
          <Spectrum
            title={`${line}, from ${formatQuantity(cutOffHz!, 'hertz', { digits: 3, unit: true, mark })} too`}
            picture={picture}
            out={beside}
          />
          <Waves
            title="The wave behind that"
            summary={line}
            picture={picture}
            fundamentalHz={fundamentalHz}
            out={[{ id: 'built', value: beside }]}
          />
        </>
      )}
    </div>
  );
}

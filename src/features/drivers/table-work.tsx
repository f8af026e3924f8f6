import { Button, InputNumber, Select } from 'antd';
import type { LevelTable, Measured } from '@/core/speaker/measured';
import styles from './drivers.module.css';

const SMOOTHING = [
  { value: 0, label: 'not smoothed' },
  ...[24, 12, 6, 3].map((value) => ({ value, label: `smoothed 1/${value} octave` })),
];

interface Props {
  measured: Measured | undefined;
  onChange: (measured: Measured | undefined) => void;
}

/** What is done to the measured tables before they are used; their rows stay as they came. */
export function TableWork({ measured, onChange }: Props) {
  if (!measured?.level && !measured?.impedance) return null;
  const { level, impedance } = measured;
  const without = (name: keyof Measured) => {
    const rest = { ...measured };
    delete rest[name];
    onChange(Object.keys(rest).length > 0 ? rest : undefined);
  };
  const change = (part: Partial<LevelTable>) =>
    onChange({ ...measured, level: { ...level!, ...part } });
  const number = (
    label: string,
    name: 'shiftDb' | 'lowSlope' | 'highSlope' | 'atVolts' | 'atMetres',
    suffix: string,
  ) => (
    <label className={styles.line}>
      {label}
      <InputNumber<number>
        size="small"
        aria-label={label}
        suffix={suffix}
        value={level![name]}
        onChange={(x) => x !== null && change({ [name]: x })}
      />
    </label>
  );
  return (
    <>
      {level && (
        <fieldset className={styles.table}>
          <legend>
            Level, {level.frequenciesHz.length} rows
            {level.phaseDegrees ? ', with phase' : ', minimum phase'}
          </legend>
          <Select
            size="small"
            aria-label="Smoothing"
            value={level.smoothPerOctave ?? 0}
            options={SMOOTHING}
            onChange={(n) => change({ smoothPerOctave: n === 0 ? undefined : n })}
          />
          {number('Shifted by', 'shiftDb', 'dB')}
          {number('Measured at', 'atVolts', 'V')}
          {number('from', 'atMetres', 'm')}
          {number('Goes on below at', 'lowSlope', 'dB/oct')}
          {number('Goes on above at', 'highSlope', 'dB/oct')}
          <label className={styles.line}>
            Arrives later by
            <InputNumber<number>
              size="small"
              aria-label="Arrives later by"
              suffix="µs"
              value={Math.round(level.delaySeconds * 1e9) / 1e3}
              onChange={(x) => x !== null && change({ delaySeconds: x / 1e6 })}
            />
          </label>
          {level.below && <Joined below={level.below} onChange={(below) => change({ below })} />}
          <Button size="small" type="text" onClick={() => without('level')}>
            Take the level away
          </Button>
        </fieldset>
      )}
      {impedance && (
        <fieldset className={styles.table}>
          <legend>
            Impedance, {impedance.frequenciesHz.length} rows
            {impedance.phaseDegrees ? ', with phase' : ', phase by its circuit'}
          </legend>
          <Button size="small" type="text" onClick={() => without('impedance')}>
            Take the impedance away
          </Button>
        </fieldset>
      )}
    </>
  );
}

/** Another measurement that counts below a frequency. */
function Joined({
  below,
  onChange,
}: {
  below: NonNullable<LevelTable['below']>;
  onChange: (below: LevelTable['below']) => void;
}) {
  return (
    <>
      <label className={styles.line}>
        Another of {below.frequenciesHz.length} rows, below
        <InputNumber<number>
          size="small"
          aria-label="Joined below"
          suffix="Hz"
          min={1}
          value={below.joinHz}
          onChange={(joinHz) => joinHz !== null && onChange({ ...below, joinHz })}
        />
      </label>
      <label className={styles.line}>
        shifted by
        <InputNumber<number>
          size="small"
          aria-label="Joined, shifted by"
          suffix="dB"
          value={below.shiftDb}
          onChange={(shiftDb) => shiftDb !== null && onChange({ ...below, shiftDb })}
        />
      </label>
      <Button size="small" type="text" onClick={() => onChange(undefined)}>
        Part the two
      </Button>
    </>
  );
}

'use client';

import { useEffect, useRef } from 'react';
import { analyserNow, rateNow } from './sounding';
import styles from './listen-dock.module.css';

const BARS = 36;
const FROM_HZ = 30;
const TO_HZ = 18_000;
const FLOOR_DB = -90;
const TOP_DB = -10;
const WIDTH = 216;
const HEIGHT = 66;
/** The wave takes this part of the height, below the bars. */
const WAVE = 22;
const WAVE_POINTS = 200;
/** It is drawn anew so often, milliseconds: what sounds needs the machine more than what is seen of it. */
const EVERY = 60;

/** What sounds: its spectrum as bars over frequency, a third of an octave or so each, and its wave. */
export function Spectrum({ on }: { on: boolean }) {
  const bars = useRef<SVGPathElement>(null);
  const wave = useRef<SVGPathElement>(null);
  useEffect(() => {
    if (!on) return;
    let frame = 0;
    let drawnAt = -Infinity;
    let [levels, volts] = [new Float32Array(0), new Float32Array(0)];
    const draw = (now: number) => {
      frame = requestAnimationFrame(draw);
      if (now - drawnAt < EVERY) return;
      drawnAt = now;
      const analyser = analyserNow();
      const rate = rateNow();
      if (!analyser || !rate) return;
      if (levels.length !== analyser.frequencyBinCount) {
        levels = new Float32Array(analyser.frequencyBinCount);
        volts = new Float32Array(analyser.fftSize);
      }
      analyser.getFloatFrequencyData(levels);
      analyser.getFloatTimeDomainData(volts);
      bars.current?.setAttribute('d', barsOf(levels, rate / analyser.fftSize));
      wave.current?.setAttribute('d', waveOf(volts));
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [on]);
  return (
    <svg
      className={styles.spectrum}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={
        on
          ? 'Spectrum from 30 Hz to 18 kHz, and the wave below it, of what sounds'
          : 'Nothing sounds'
      }
    >
      <path ref={bars} className={styles.bars} />
      <path ref={wave} className={styles.wave} />
      <path className={styles.axis} d={`M0 ${HEIGHT - WAVE}H${WIDTH}`} />
    </svg>
  );
}

/** Bars of the highest level in each band. */
function barsOf(levels: Float32Array, binHz: number): string {
  const bottom = HEIGHT - WAVE;
  let d = '';
  for (let k = 0; k < BARS; k++) {
    const edge = (n: number) => FROM_HZ * (TO_HZ / FROM_HZ) ** (n / BARS);
    const from = Math.max(1, Math.floor(edge(k) / binHz));
    const to = Math.min(levels.length - 1, Math.max(from, Math.ceil(edge(k + 1) / binHz) - 1));
    let most = FLOOR_DB;
    for (let i = from; i <= to; i++) most = Math.max(most, levels[i]);
    const height = Math.min(1, (most - FLOOR_DB) / (TOP_DB - FLOOR_DB)) * bottom;
    const x = (k * WIDTH) / BARS;
    d += `M${(x + 1).toFixed(1)} ${bottom}v${(-height).toFixed(1)}h${(WIDTH / BARS - 2).toFixed(1)}v${height.toFixed(1)}z`;
  }
  return d;
}

/** From a rising passage through nought on, so that it stands still. */
function waveOf(volts: Float32Array): string {
  let from = 0;
  for (let k = 1; k < volts.length / 2; k++)
    if (volts[k - 1] < 0 && volts[k] >= 0) {
      from = k;
      break;
    }
  const length = Math.min(volts.length - from, 1024);
  let most = 1e-3;
  for (let k = 0; k < length; k++) most = Math.max(most, Math.abs(volts[from + k]));
  let d = '';
  for (let n = 0; n < WAVE_POINTS; n++) {
    const v = volts[from + Math.floor((n * length) / WAVE_POINTS)];
    const y = HEIGHT - WAVE / 2 - (v / most) * (WAVE / 2 - 2);
    d += `${n === 0 ? 'M' : 'L'}${((n * WIDTH) / WAVE_POINTS).toFixed(1)} ${y.toFixed(1)}`;
  }
  return d;
}

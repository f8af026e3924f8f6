'use client';

import { Button } from 'antd';
import { Play, Square, Volume2, VolumeX, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { messageOf } from '@/core/errors';
import { formatFixed } from '@/core/quantity/format';
import type { Sheet } from '@/core/sheet/schema';
import { usePreferences } from '@/store/preferences';
import { Slider } from '@/ui/controls/slider';
import { useCommands, type Command } from '../shell/commands';
import { refuse, tell } from '../shell/tell';
import { AgainstChoice, useAgainst } from './against';
import { isSum } from '@/core/listen/is-sum';
import { changeProgram, setListening, useListening } from './listening';
import { Piano } from './piano';
import { resampled } from './recording';
import { SoundSentence } from './sound-sentence';
import {
  begin,
  choose,
  end,
  hearInput,
  hearProgram,
  hearRecording,
  hearSheet,
  rateNow,
  setMuted,
  setVolume,
  useSounding,
} from './sounding';
import { Spectrum } from './spectrum';
import { writeWav } from './write-wav';
import styles from './listen-dock.module.css';

/** Seconds that are written to a file. */
const WRITTEN_SECONDS = 8;

/** The sheet’s circuit, heard: what is played, how it sounds, and against what. */
export function ListenDock({ sheet, way = 0 }: { sheet: Sheet; way?: number }) {
  const { on, muted, problem } = useSounding();
  const program = useListening((s) => s.program);
  const side = useListening((s) => s.side);
  const against = useListening((s) => s.against);
  useHeard(sheet, way);
  useAgainst(sheet, way);
  const commands = useMemo(
    (): Command[] => [
      {
        id: 'listen-play',
        title: 'Listen: play or stop',
        group: 'Sheet',
        keys: 'shift+e',
        run: () => (useSounding.getState().on ? end() : void begin()),
      },
      {
        id: 'listen-mute',
        title: 'Listen: mute',
        group: 'Sheet',
        keys: 'm',
        run: () => setMuted(!useSounding.getState().muted),
      },
      {
        id: 'listen-other',
        title: 'Listen: the other of two',
        group: 'Sheet',
        keys: 'x',
        run: otherSide,
      },
    ],
    [],
  );
  useCommands('listen', commands);
  // Nothing sounds on when the sheet is left.
  useEffect(() => end, []);
  const span = sheet.controls.length > 0 ? 1 : undefined;
  return (
    <section className={styles.dock} aria-label="Listen">
      <div className={styles.play}>
        <h3>Listen</h3>
        <Status sum={isSum(sheet)} />
        <div className={styles.buttons}>
          <Button
            type="primary"
            icon={on ? <Square size={13} /> : <Play size={13} />}
            onClick={() => (on ? end() : void begin())}
          >
            {on ? 'Stop' : 'Play'}
          </Button>
          <Button
            aria-pressed={muted}
            icon={muted ? <VolumeX size={14} /> : <Volume2 size={14} />}
            onClick={() => setMuted(!muted)}
          >
            {muted ? 'Muted' : 'Mute'}
          </Button>
        </div>
        <Volume />
      </div>
      <SoundSentence span={span} />
      <Piano />
      <Spectrum on={on && !muted} />
      <div className={styles.further}>
        <AgainstChoice sheet={sheet} />
        {against && (
          <div className={styles.sides} role="group" aria-label="Which of two is heard">
            {(['a', 'b'] as const).map((s) => (
              <button
                key={s}
                type="button"
                aria-pressed={side === s}
                className={side === s ? `${styles.side} ${styles.chosen}` : styles.side}
                onClick={() => hearSide(s)}
              >
                {s.toUpperCase()}
                <span className="visually-hidden">
                  {s === 'a' ? ': this sheet' : ': what it is compared against'}
                </span>
              </button>
            ))}
            <span>levels matched</span>
          </div>
        )}
        <Write sheet={sheet} way={way} />
        <p className={styles.safety} role="note">
          Starts quiet; a limiter holds −6 dB. Turn your amplifier down first, headphones above all:
          resonance can be sudden and loud.
        </p>
      </div>
      <button
        type="button"
        className={styles.close}
        aria-label="Close Listen"
        onClick={() => setListening({ open: false })}
      >
        <X size={14} />
      </button>
      {(problem ?? (program.sound === 'recording' && !useListening.getState().recording)) && (
        <p role="alert" className={styles.problem}>
          {problem ?? 'Choose a WAV file to play.'}
        </p>
      )}
    </section>
  );
}

function hearSide(side: 'a' | 'b'): void {
  setListening({ side });
  choose(side);
}

function otherSide(): void {
  const { against, side } = useListening.getState();
  if (against) hearSide(side === 'a' ? 'b' : 'a');
}

/** Whatever is set goes to where it sounds. */
function useHeard(sheet: Sheet, way: number): void {
  const { parts, source, ways, controls, crossover, bank } = sheet;
  const program = useListening((s) => s.program);
  const recording = useListening((s) => s.recording);
  const on = useSounding((s) => s.on);
  const of = useListening((s) => s.of);
  useEffect(() => {
    if (of === sheet.id) return;
    // Another sheet is played with the volts of its own source.
    changeProgram({ volts: Math.min(1000, Math.max(1e-6, source.volts)) });
    setListening({ of: sheet.id, against: null, side: 'a' });
  }, [of, sheet.id, source.volts]);
  useEffect(() => {
    hearProgram(program);
    if (!on || program.sound !== 'input') return;
    hearInput().catch((error: unknown) =>
      refuse(`Nothing comes in: ${messageOf(error)} Or choose a sound.`),
    );
  }, [program, on]);
  useEffect(() => {
    const rate = on ? rateNow() : undefined;
    if (!recording || rate === undefined) return;
    let wanted = true;
    void resampled(recording.samples, recording.rate, rate).then((samples) => {
      if (wanted) hearRecording(samples);
    });
    return () => {
      wanted = false;
    };
  }, [recording, on]);
  useEffect(() => {
    hearSheet('a', { parts, source, ways, controls, crossover, bank }, way);
  }, [parts, source, ways, controls, crossover, bank, way]);
}

/** How the circuit is heard: in which steps, at what cost, and whether anything was missed. */
function Status({ sum }: { sum: boolean }) {
  const { on, player } = useSounding();
  const side = useListening((s) => s.side);
  const mark = usePreferences((p) => p.mark);
  const heard = player?.sides[side];
  const problem = player?.problems[side];
  if (problem) return <p className={styles.bad}>Not heard as it is now: {problem}</p>;
  if (!on)
    return (
      <p>
        {sum
          ? 'the sum of its ways, as it arrives: loud sweeps can hurt ears and tweeters, start low'
          : 'the solved circuit, bent devices and all'}
      </p>
    );
  if (!heard) return <p>making it ready …</p>;
  const tooMuch = heard.share > 0.9;
  return (
    <p data-missed={player.missed}>
      {sum ? 'the sum of its ways' : `the solved circuit, ${heard.times} steps a sample`},{' '}
      <span className="mono">{formatFixed(player.share * 100, 0, mark)} %</span> of one core
      {player.limiting < 0.99 && ' · limiter holds'}
      {player.missed > 0 && ` · ${player.missed} gaps`}
      {heard.lost > 0 && ` · ${heard.lost} steps not settled`}
      {tooMuch &&
        `. Too heavy to play in time: a second takes ${formatFixed(heard.share, 1, mark)} s. Write it to a file instead.`}
    </p>
  );
}

function Volume() {
  const volume = useSounding((s) => s.volume);
  return (
    <label className={styles.volume}>
      <span>Volume</span>
      <Slider label="Volume, dB" min={-60} max={0} value={volume} onChange={setVolume} />
      <span className="mono">{formatFixed(volume, 0)} dB</span>
    </label>
  );
}

/** A stretch of the program as a file of volts. */
function Write({ sheet, way }: { sheet: Sheet; way: number }) {
  const [done, setDone] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  const mark = usePreferences((p) => p.mark);
  useEffect(() => () => stop.current?.abort(), []);
  const write = async () => {
    const { program, recording } = useListening.getState();
    if (program.sound === 'input') {
      refuse('What comes in cannot be written ahead of time: choose a sound or a recording.');
      return;
    }
    const { signal } = (stop.current = new AbortController());
    setDone(0);
    try {
      const { name, perSecond } = await writeWav({
        sheet,
        way,
        program,
        seconds: WRITTEN_SECONDS,
        recording,
        signal,
        progress: setDone,
      });
      tell(
        `${name}: volts as they are, 48 kHz, 32-bit. A second of it took ${formatFixed(perSecond, 2, mark)} s.`,
      );
    } catch (error) {
      if (!signal.aborted) refuse(`Nothing was written: ${messageOf(error)}`);
    }
    setDone(null);
  };
  if (done === null)
    return (
      <button type="button" className={styles.link} onClick={() => void write()}>
        Write {WRITTEN_SECONDS} s to a WAV file
      </button>
    );
  return (
    <span>
      {Math.round(done * 100)} % written{' '}
      <button type="button" className={styles.link} onClick={() => stop.current?.abort()}>
        stop
      </button>
    </span>
  );
}

'use client';

import { useRef } from 'react';
import type { Program } from '@/core/listen/program';
import { MOST_NOTES } from '@/core/listen/program';
import { ReedError } from '@/core/errors';
import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { usePreferences } from '@/store/preferences';
import { EditableQuantity } from '@/ui/controls/editable-quantity';
import { ChoiceWord } from '../sheet/choice-word';
import { changeProgram, useListening } from './listening';
import { openRecording } from './recording';
import styles from './listen-dock.module.css';

const SOUND_WORDS: Record<Program['sound'], string> = {
  saw: 'Saw',
  square: 'Square',
  pulse: 'Pulse, a fifth',
  triangle: 'Triangle',
  sine: 'Sine',
  noise: 'Noise',
  pluck: 'Plucked saw',
  recording: 'Recording',
  input: 'What comes in',
};

/** Notes that can be chosen at once, in semitones. */
const TUNES: { word: string; notes: number[] }[] = [
  { word: 'one tone', notes: [] },
  { word: 'one note, again and again', notes: [0] },
  { word: 'four notes', notes: [0, 7, 12, 3] },
  { word: 'a scale', notes: [0, 2, 4, 5, 7, 9, 11, 12] },
  { word: 'octaves up and down', notes: [-12, 0, 12, 24, 12, 0] },
];

const tuneWord = (notes: readonly number[]): string =>
  TUNES.find((t) => String(t.notes) === String(notes))?.word ?? `${notes.length} notes`;

/** What is played, as a sentence whose marked words are edited where they stand. */
export function SoundSentence({ span }: { span: number | undefined }) {
  const program = useListening((s) => s.program);
  const recording = useListening((s) => s.recording);
  const mark = usePreferences((p) => p.mark);
  const file = useRef<HTMLInputElement>(null);
  const { sound } = program;
  const pitched = sound !== 'noise' && sound !== 'recording' && sound !== 'input';
  const seconds = (value: number) =>
    formatQuantity(value, 'seconds', { digits: 3, unit: true, mark });
  return (
    <div className={styles.sentence}>
      <div>
        <ChoiceWord
          label="Sound"
          value={sound}
          choices={Object.entries(SOUND_WORDS).map(([value, word]) => ({
            value: value as Program['sound'],
            word,
            line: value === 'recording' ? 'A WAV file of yours …' : word,
          }))}
          onChoose={(next) => {
            if (next === 'recording' && !recording) file.current?.click();
            else changeProgram({ sound: next });
          }}
        />
        {sound === 'recording' && (
          <>
            {' '}
            <button type="button" className={styles.file} onClick={() => file.current?.click()}>
              {recording?.name ?? 'choose a file'}
            </button>
          </>
        )}
        {pitched && (
          <>
            {' at '}
            <EditableQuantity
              label="Pitch"
              kind="hertz"
              value={program.hz}
              shown={formatQuantity(program.hz, 'hertz', { digits: 4, unit: true, mark })}
              mark={mark}
              onCommit={(hz) => changeProgram({ hz: bounded(hz, 8, 12_000) })}
            />
          </>
        )}
        {', ±'}
        <EditableQuantity
          label="Amplitude"
          kind="volts"
          value={program.volts}
          shown={formatQuantity(program.volts, 'volts', { digits: 3, unit: true, mark })}
          mark={mark}
          onCommit={(volts) => changeProgram({ volts: bounded(volts, 1e-6, 1000) })}
        />
        <input
          ref={file}
          type="file"
          accept=".wav,audio/wav"
          className="visually-hidden"
          tabIndex={-1}
          aria-label="A recording of yours"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = '';
            if (chosen) void openRecording(chosen);
          }}
        />
      </div>
      <div>
        <ChoiceWord
          label="Notes"
          value={tuneWord(program.notes)}
          choices={TUNES.map(({ word }) => ({ value: word, word }))}
          onChoose={(word) =>
            changeProgram({
              notes: TUNES.find((t) => t.word === word)!.notes.slice(0, MOST_NOTES),
            })
          }
        />
        {program.notes.length > 0 && (
          <>
            {' at '}
            <EditableQuantity
              label="Beats a minute"
              kind="ratio"
              value={program.beatsPerMinute}
              shown={formatFixed(program.beatsPerMinute, 0, mark)}
              mark={mark}
              onCommit={(beats) => changeProgram({ beatsPerMinute: bounded(beats, 20, 400) })}
            />
            {' a minute'}
          </>
        )}
      </div>
      {span !== undefined && (
        <div>
          {'envelope '}
          <EditableQuantity
            label="Attack"
            kind="seconds"
            value={program.attackSeconds}
            shown={seconds(program.attackSeconds)}
            mark={mark}
            onCommit={(s) => changeProgram({ attackSeconds: bounded(s, 0, 10) })}
          />
          {' up, '}
          <EditableQuantity
            label="Decay"
            kind="seconds"
            value={program.decaySeconds}
            shown={seconds(program.decaySeconds)}
            mark={mark}
            onCommit={(s) => changeProgram({ decaySeconds: bounded(s, 1e-3, 20) })}
          />
          {' down, opens '}
          <EditableQuantity
            label="Opens the cut-off by, per cent of its travel"
            kind="ratio"
            value={program.opens * 100}
            shown={`${formatFixed(program.opens * 100, 0, mark)} %`}
            mark={mark}
            onCommit={(percent) => changeProgram({ opens: bounded(percent, -100, 100) / 100 })}
          />
          {', '}
          <ChoiceWord
            label="Whether the cut-off follows the notes"
            value={program.follows ? 'follows' : 'stays'}
            choices={[
              { value: 'follows', word: 'follows the notes' },
              { value: 'stays', word: 'leaves the notes alone' },
            ]}
            onChoose={(word) => changeProgram({ follows: word === 'follows' })}
          />
        </div>
      )}
    </div>
  );
}

/** @throws ReedError where a value lies beyond what can be played */
function bounded(x: number | null, least: number, most: number): number {
  if (x !== null && x >= least && x <= most) return x;
  throw new ReedError('range', `It must be from ${least} to ${most}.`);
}

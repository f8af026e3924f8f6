'use client';

import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { playNotesBy } from '../midi/midi';
import { press, release } from './sounding';
import styles from './listen-dock.module.css';

/** Keys of the computer in the order of semitones: the home row is white, the row above black. */
const LETTERS = ['a', 'w', 's', 'e', 'd', 'f', 't', 'g', 'y', 'h', 'u', 'j', 'k', 'o', 'l'];
const NAMES = ['C', 'C♯', 'D', 'D♯', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'A♯', 'B'];
const isBlack = (semitone: number): boolean => NAMES[semitone % 12].length > 1;
const KEYS = LETTERS.map((letter, semitone) => ({
  letter,
  semitone,
  black: isBlack(semitone),
  name: `${NAMES[semitone % 12]}${semitone >= 12 ? ', an octave up' : ''}`,
}));
const WHITE = KEYS.filter((k) => !k.black);
/** Of a white key's width that a black one is wide. */
const BLACK_WIDTH = 0.6;

/**
 * A keyboard that plays while it is held, by pointer or, while it has the focus, by the letters of the
 * computer's own. The lowest key is the pitch of the sentence.
 */
export function Piano() {
  const [down, setDown] = useState<readonly number[]>([]);
  const held = useRef(new Set<number>());
  const start = (semitone: number) => {
    if (held.current.has(semitone)) return;
    held.current.add(semitone);
    press(semitone);
    setDown([...held.current]);
  };
  const stop = (semitone: number) => {
    if (!held.current.delete(semitone)) return;
    release(semitone);
    setDown([...held.current]);
  };
  const stopAll = () => [...held.current].forEach(stop);
  useEffect(() => {
    const keys = held.current;
    // Whatever was held when it goes from the screen must not go on sounding.
    return () => keys.forEach((semitone) => release(semitone));
  }, []);
  // A MIDI keyboard plays too, as long as this one is on the screen.
  useEffect(() => {
    playNotesBy({ press, release });
    return () => playNotesBy(null);
  }, []);
  const semitoneOf = ({ key, ctrlKey, altKey, metaKey }: KeyboardEvent) =>
    ctrlKey || altKey || metaKey ? -1 : LETTERS.indexOf(key.toLowerCase());
  return (
    <div
      className={styles.piano}
      role="group"
      tabIndex={0}
      aria-label="Keyboard: while it has the focus, the letters A to L play"
      onKeyDown={(event) => {
        const semitone = semitoneOf(event);
        if (semitone < 0) return;
        // The letters mean something else elsewhere on the sheet, whose listener stands beside this one.
        event.nativeEvent.stopImmediatePropagation();
        event.preventDefault();
        start(semitone);
      }}
      onKeyUp={(event) => {
        const semitone = semitoneOf(event);
        if (semitone >= 0) stop(semitone);
      }}
      onBlur={stopAll}
      onPointerUp={stopAll}
      onPointerLeave={stopAll}
      onPointerCancel={stopAll}
    >
      <svg viewBox={`0 0 ${WHITE.length * 20} 66`} preserveAspectRatio="none" aria-hidden>
        {[...WHITE, ...KEYS.filter((k) => k.black)].map(({ semitone, black, letter }) => {
          const before = WHITE.filter((k) => k.semitone < semitone).length;
          const x = black ? before * 20 - 10 * BLACK_WIDTH : before * 20;
          const width = black ? 20 * BLACK_WIDTH : 20;
          const look = [
            black ? styles.black : styles.white,
            down.includes(semitone) ? styles.down : '',
          ].join(' ');
          return (
            <g key={letter} onPointerDown={() => start(semitone)}>
              <rect className={look} x={x} y={0} width={width} height={black ? 40 : 66} />
              <text
                className={black ? styles.onBlack : styles.onWhite}
                x={x + width / 2}
                y={black ? 34 : 60}
              >
                {letter.toUpperCase()}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}

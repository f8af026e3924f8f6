import { levelAdvice } from '@/core/sweep/level-check';
import { adviceWords, noteOf } from './sweep-words';

test('what comes back is said in decibels under full scale, and what to do about it', () => {
  expect(adviceWords(levelAdvice(0.1), 'point')).toBe('20 dB under full scale comes back: good.');
  expect(adviceWords(levelAdvice(0.01), 'point')).toMatch(/^40 dB under full scale.*noise/);
  expect(adviceWords(levelAdvice(0.9), 'comma')).toMatch(/^1 dB under full scale.*clips/);
  expect(adviceWords(levelAdvice(1), 'point')).toMatch(/turn the source down/);
  expect(adviceWords(levelAdvice(0), 'point')).toMatch(/^Nothing comes back/);
});

test('a take says what was left out of it', () => {
  expect(noteOf({ drowned: 0, hasMoved: false })).toBe('');
  expect(noteOf({ drowned: 1, hasMoved: false })).toMatch(/^1 point was drowned/);
  expect(noteOf({ drowned: 9, hasMoved: true })).toMatch(/^9 points .* phase is left out\.$/);
});

import type { Findings } from '@/core/suspects/suspects';
import type { Suspect } from '@/core/suspects/rank';
import { mistakeWords, nextWords, offWords, suspectName, valueWords } from './suspect-words';
import { expectWords } from './step-list';
import { verdictOf } from './suspect-list';

const plain = (text: string) => text.replace(/[\u00a0\u202f]/g, ' ');
const suspect = (change: Partial<Suspect> = {}): Suspect => ({
  parts: [{ id: 'C1', factor: 1.31 }],
  alike: [],
  alikeParts: [],
  explained: 0.97,
  chance: 0.95,
  ...change,
});

test('how far a part is off', () => {
  expect(plain(offWords(1.31, 'point'))).toBe('31 % high');
  expect(plain(offWords(0.955, 'point'))).toBe('4.5 % low');
  expect(plain(offWords(10, 'point'))).toBe('10 times');
  expect(plain(offWords(0.1, 'point'))).toBe('1/10 of it');
  const pair = suspect({
    parts: [
      { id: 'R1', factor: 1.2 },
      { id: 'C2', factor: 0.9 },
    ],
  });
  expect(suspectName(pair, 'point')).toBe('R1 and C2 together');
  const values = [{ id: 'C1', should: 5.6e-9, seems: 7.3e-9 }];
  expect(plain(valueWords(values, suspect().parts, 'point'))).toMatch(/^7\.?n?3n? for 5\.?n?6n?$/);
});

test('mistakes, and what they come to', () => {
  expect(mistakeWords({ kind: 'swapped', parts: ['R1', 'R2'] }, 'point')).toBe('R1 and R2 swapped');
  expect(
    plain(
      mistakeWords(
        {
          kind: 'slow-op-amp',
          parts: ['A1'],
          value: { field: 'gainBandwidthHz', value: 123_456 },
        },
        'point',
      ),
    ),
  ).toBe('A1 too slow: about 120 kHz');
});

test('the next measurement says what each possibility reads', () => {
  expect(
    plain(
      nextWords(
        {
          kind: 'resistance',
          between: ['in', 'out'],
          expected: [
            { parts: ['C1'], ohms: 10_000, sd: 0.01 },
            { parts: ['R1'], ohms: 13_600, sd: 0.01 },
          ],
        },
        {},
        'point',
      ),
    ),
  ).toMatch(/from the input to the output: 10\.?0? ?k.* with C1, 13.*6.* with R1\.$/);
  expect(
    plain(
      nextWords(
        {
          kind: 'level',
          net: 's1',
          hz: 2600,
          expected: [
            { parts: [], db: -1.24, sd: 0.1 },
            { parts: ['C1'], db: 0.6, sd: 0.1 },
          ],
          apartDb: 1.8,
        },
        { s1: ['R1', 'R2', 'C1'] },
        'point',
      ),
    ),
  ).toMatch(
    /level where R1, R2 and C1 meet, at 2.?6 ?k.*−1.2 dB with nothing wrong, 0.6 dB with C1\.$/,
  );
});

test('what a step expects', () => {
  const words = (least: number, most: number, quantity: 'ohms' | 'volts' | 'decibels') =>
    plain(expectWords({ quantity, least, most }, 'point'));
  expect(words(20e6, Infinity, 'ohms')).toBe('over 20 MΩ');
  expect(words(-0.0032, 0.0032, 'volts')).toBe('within ±3.2 mV');
  expect(words(0.0000392, 0.365, 'decibels')).toBe('0.00 dB to 0.36 dB');
});

test('the verdict in a sentence', () => {
  const findings = (change: Partial<Findings>): Findings => ({
    ranking: [suspect()],
    mistakes: [],
    gainDb: 0,
    ordinary: { chance: 0, explained: 0, enough: false },
    next: null,
    noiseDb: 0.1,
    unseen: [],
    ...change,
  });
  expect(verdictOf(findings({}))).toBe('One part off explains it.');
  expect(verdictOf(findings({ ordinary: { chance: 0.9, explained: 1, enough: true } }))).toContain(
    'Nothing is wrong',
  );
  expect(verdictOf(findings({ ranking: [suspect({ chance: 0.5 })] }))).toContain('not settled');
  expect(verdictOf(findings({ ranking: [suspect({ alike: [['R1']] })] }))).toContain(
    'one of 2 that are alike',
  );
  expect(
    verdictOf(
      findings({
        mistakes: [{ kind: 'decade', parts: ['R1'], explained: 1, chance: 0.9, alike: [] }],
      }),
    ),
  ).toContain('looks like a mistake');
});

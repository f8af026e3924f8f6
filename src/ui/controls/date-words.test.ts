import { dateWords } from './date-words';

test('a date is written in the reader’s way, and one that is not legible is said to be so', () => {
  const words = dateWords('2026-11-25T08:30:00.000Z', 'medium');
  expect(words).toMatch(/2026/);
  expect(dateWords('2026-11-26T08:30:00.000Z', 'medium')).not.toBe(words);
  expect(dateWords('2026-11-25T08:30:00.000Z', 'short').length).toBeLessThan(words.length);
  for (const date of ['', 'long ago', '2026-99-99'])
    expect(dateWords(date, 'medium')).toBe('at a time that is not legible');
});

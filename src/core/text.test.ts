import fc from 'fast-check';
import { cut, isVisible, nameWith, quoted } from './text';

test('a message repeats forty characters at most, on one line', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 200, unit: 'grapheme' }), (text) => {
      const said = quoted(text);
      expect(said.length).toBeLessThanOrEqual(42);
      expect(said).toMatch(/^“.*”$/u);
      expect(said).not.toMatch(/[\n\r\t]/);
    }),
  );
  expect(quoted(' a \n b ')).toBe('“a b”');
});

test('nothing is cut through the middle of a character', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(30), (text, most) => {
      const kept = cut(text, most + 1);
      expect(kept.length).toBeLessThanOrEqual(most + 1);
      expect(text.startsWith(kept)).toBe(true);
      // Half a character alone has no place in a text.
      expect(kept).not.toMatch(/\p{Cs}/u);
    }),
  );
  expect(cut('a𝄞b', 2)).toBe('a');
  expect(cut('a𝄞b', 3)).toBe('a𝄞');
});

test('a name gives way to what is said after it', () => {
  expect(nameWith('Rumble', ' (copy)', 20)).toBe('Rumble (copy)');
  expect(nameWith('Rumble filter', ' (copy)', 15)).toBe('Rumble f (copy)');
  expect(nameWith('Rumble filter', ' (copy)', 14)).toBe('Rumble (copy)');
});

test.each([
  ['a', true],
  ['1', true],
  ['…', true],
  ['€', true],
  ['漢', true],
  ['', false],
  ['  \t', false],
  ['\u200b\u200d', false],
  ['\u00a0', false],
])('%j can be seen: %p', (text, seen) => expect(isVisible(text)).toBe(seen));

import fc from 'fast-check';
import { fileName } from './download';

test.each([
  ['Speech band for the hearing loop', 'csv', 'speech-band-for-the-hearing-loop.csv'],
  ['  Brumm & Rauschen: 50 Hz  ', 'svg', 'brumm-rauschen-50-hz.svg'],
  ['Höhen', 'png', 'hohen.png'],
  ['../../etc/passwd', 'json', 'etc-passwd.json'],
  ['漢字 2', 'json', '漢字-2.json'],
  ['…', 'json', 'sheet.json'],
  ['', 'sheet.json', 'sheet.sheet.json'],
])('“%s” is written to a file of plain letters', (title, ending, name) =>
  expect(fileName(title, ending)).toBe(name),
);

test('no title leaves anything that a disk could stumble over', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (title) => {
      expect(fileName(title, 'json')).toMatch(/^[\p{L}\p{N}][\p{L}\p{N}-]*\.json$/u);
    }),
  );
});

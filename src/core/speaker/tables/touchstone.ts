import { ReedError } from '@/core/errors';
import { over, plus, minus, times, size, type Complex } from '@/core/numeric/complex';
import type { Draft, TableRow } from './read-table';

const UNITS: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/**
 * A Touchstone file of one port (Touchstone File Format Specification, version 1.1, 2002): an option
 * line “# unit parameter form R ohms” and rows of frequency and one complex number. What it holds
 * becomes an impedance in ohms and degrees. Version 2 gives Z and Y in ohms and siemens, version 1 over
 * the reference resistance.
 *
 * @param option index of the option line
 * @throws ReedError `document` for an option line that says something else than one port's S, Z or Y
 */
export function readTouchstone(lines: readonly string[], option: number): Draft {
  const words = lines[option]
    .replace('#', ' ')
    .split('!')[0]
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '');
  let unit = 1e9;
  let parameter: 'S' | 'Z' | 'Y' = 'S';
  let form: 'MA' | 'DB' | 'RI' = 'MA';
  let referenceOhms = 50;
  for (let i = 0; i < words.length; i++) {
    const word = words[i];
    if (word in UNITS) unit = UNITS[word];
    else if (word === 's' || word === 'z' || word === 'y') parameter = word.toUpperCase() as 'S';
    else if (word === 'ma' || word === 'db' || word === 'ri') form = word.toUpperCase() as 'MA';
    else if (word === 'r') {
      referenceOhms = Number(words[++i]);
      if (!(referenceOhms > 0) || !Number.isFinite(referenceOhms))
        throw new ReedError(
          'document',
          `Line ${option + 1}: the reference resistance is no number above zero.`,
        );
    } else
      throw new ReedError(
        'document',
        `Line ${option + 1}: “${word.slice(0, 20)}” is not understood; a one-port of S, Z or Y was expected.`,
      );
  }
  const second = lines.some((l) => /^\s*\[version\]\s*2/i.test(l));
  const draft: Draft = {
    rows: [],
    refused: [],
    noted: [],
    read: {
      columns: 3,
      separator: 'space',
      decimal: 'point',
      comments: 1,
      touchstone: { parameter, form, referenceOhms },
    },
  };
  lines.forEach((text, i) => {
    if (i === option) return;
    const body = text.split('!')[0].trim();
    if (body === '') {
      if (text.trim() !== '') draft.read.comments++;
      return;
    }
    const line = i + 1;
    if (body.startsWith('[')) {
      checkKeyword(body, line);
      draft.read.comments++;
      return;
    }
    const refuse = (why: string) => draft.refused.push({ line, text: text.slice(0, 200), why });
    if (i < option) return void refuse('it stands before the option line');
    const numbers = body.split(/\s+/).map(Number);
    if (numbers.length !== 3)
      return void refuse(`it has ${numbers.length} numbers where a one-port has three`);
    if (numbers.some((x) => !Number.isFinite(x))) return void refuse('it is not three numbers');
    const value = complexOf(numbers[1], numbers[2], form);
    const ohms = impedanceOf(value, parameter, parameter === 'S' || !second ? referenceOhms : 1);
    if (!ohms) return void refuse('it says an impedance without end, or none at all');
    const row: TableRow = {
      line,
      frequencyHz: numbers[0] * unit,
      value: size(ohms),
      phaseDegrees: (Math.atan2(ohms.im, ohms.re) * 180) / Math.PI,
    };
    draft.rows.push(row);
  });
  return draft;
}

/** @throws ReedError `document` for more than one port */
function checkKeyword(text: string, line: number): void {
  const ports = /^\[number of ports\]\s*(\d+)/i.exec(text)?.[1];
  if (ports !== undefined && Number(ports) !== 1)
    throw new ReedError('document', `Line ${line}: it has ${ports} ports where one was expected.`);
}

function complexOf(first: number, second: number, form: 'MA' | 'DB' | 'RI'): Complex {
  if (form === 'RI') return { re: first, im: second };
  const magnitude = form === 'DB' ? 10 ** (first / 20) : first;
  const angle = (second * Math.PI) / 180;
  return { re: magnitude * Math.cos(angle), im: magnitude * Math.sin(angle) };
}

/** Version 1 gives Z and Y over the reference resistance: Z/R, Y R. */
function impedanceOf(
  value: Complex,
  parameter: 'S' | 'Z' | 'Y',
  ohms: number,
): Complex | undefined {
  const one = { re: 1, im: 0 };
  const scale = { re: ohms, im: 0 };
  const found =
    parameter === 'Z'
      ? times(value, scale)
      : parameter === 'Y'
        ? over(scale, value)
        : times(scale, over(plus(one, value), minus(one, value)));
  return Number.isFinite(found.re) && Number.isFinite(found.im) && size(found) > 1e-9
    ? found
    : undefined;
}

import { ReedError, messageOf } from '@/core/errors';
import { quoted } from '@/core/text';
import { withoutMark } from './json';

/*
 * Files and stored records are measured before anything else looks at them, so that no document can
 * exhaust the stack, the memory or the patience of whoever opens it.
 */

export const DOCUMENT_LIMITS = {
  /** UTF-16 units of a file. */
  length: 20_000_000,
  /** Lists and objects inside each other. A sheet has twelve. */
  depth: 32,
  /** Entries of one list or object. */
  entries: 5_000,
  /** Characters of one text. */
  text: 4_000,
  /** Values in the whole document. */
  values: 2_000_000,
} as const;

/** Why a text is no JSON that could be read here; null when it may be parsed. */
function textProblem(text: string): string | null {
  if (text.length > DOCUMENT_LIMITS.length)
    return `it is longer than ${DOCUMENT_LIMITS.length / 1e6} MB, and a sheet is far smaller`;
  let depth = 0;
  let from = -1;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (from >= 0) {
      if (c === 0x5c) i++;
      else if (c === 0x22) {
        if (i - from > 6 * DOCUMENT_LIMITS.text) return tooLongText();
        from = -1;
      }
    } else if (c === 0x22) from = i;
    else if (c === 0x5b || c === 0x7b) {
      if (++depth > DOCUMENT_LIMITS.depth) return tooDeep();
    } else if (c === 0x5d || c === 0x7d) depth--;
  }
  return null;
}

const tooDeep = () =>
  `it holds more than ${DOCUMENT_LIMITS.depth} lists and objects inside each other`;
const tooLongText = () => `it holds a text of more than ${DOCUMENT_LIMITS.text} characters`;

/**
 * Parse JSON whose size, depth and lengths are bounded.
 *
 * @throws ReedError `document` in one sentence, saying what is too large or where it is no JSON
 */
export function parseBounded(file: string, expected: string): unknown {
  const text = withoutMark(file);
  const problem = textProblem(text);
  if (problem) throw new ReedError('document', `The file cannot be read: ${problem}; ${expected}.`);
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new ReedError('document', `The file is not JSON${whereOf(error, text)}; ${expected}.`);
  }
  checkBounds(document);
  return document;
}

/** Where a JSON parser stumbled, as far as it says; engines word it differently. */
function whereOf(error: unknown, text: string): string {
  if (text.trim() === '') return ': it is empty';
  const words = messageOf(error);
  const at = /position (\d+)/.exec(words)?.[1];
  if (at !== undefined && Number(at) < text.length) {
    const before = text.slice(0, Number(at)).split('\n');
    return `: line ${before.length}, column ${before[before.length - 1].length + 1} is not understood`;
  }
  const token = /token '?(.)'?/u.exec(words)?.[1];
  return /end of|Unterminated/.test(words) || token === undefined
    ? ': it ends too early'
    : `: ${quoted(token)} was not expected there`;
}

/**
 * Measure a document, walking it without recursion.
 *
 * @throws ReedError `document` naming the place that is too deep, too long or too large
 */
export function checkBounds(document: unknown): void {
  const refuse = (path: string, what: string) =>
    new ReedError(
      'document',
      `The document cannot be read${path === '' ? '' : ` at ${quoted(path)}`}: ${what}.`,
      { path },
    );
  let values = 0;
  const open: { value: unknown; path: string; depth: number }[] = [
    { value: document, path: '', depth: 0 },
  ];
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, path, depth } = next;
    if (++values > DOCUMENT_LIMITS.values)
      throw refuse('', `it holds more than ${DOCUMENT_LIMITS.values / 1e6} million values`);
    if (typeof value === 'string' && value.length > DOCUMENT_LIMITS.text)
      throw refuse(path, tooLongText());
    if (typeof value !== 'object' || value === null) continue;
    if (depth >= DOCUMENT_LIMITS.depth) throw refuse(path, tooDeep());
    const list = Array.isArray(value);
    const entries = Object.entries(value);
    if (entries.length > DOCUMENT_LIMITS.entries)
      throw refuse(path, `it lists more than ${DOCUMENT_LIMITS.entries} entries`);
    for (const [key, inner] of entries)
      open.push({
        value: inner,
        path: list ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`,
        depth: depth + 1,
      });
  }
}

/** Longest piece of somebody's text that a message repeats. */
const QUOTED = 40;

/** Text as a message repeats it: in quotes, on one line, and never longer than forty characters. */
export function quoted(text: string): string {
  const line = text.replace(/\s+/g, ' ').trim();
  return `“${line.length > QUOTED ? `${cut(line, QUOTED - 1)}…` : line}”`;
}

/** The first `most` UTF-16 units of a text, without halving a character. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const high = text.charCodeAt(most - 1);
  return text.slice(0, high >= 0xd800 && high <= 0xdbff ? most - 1 : most);
}

/** A name with something said after it; the name gives way where both would be too long. */
export function nameWith(name: string, suffix: string, most: number): string {
  return `${cut(name, most - suffix.length).trimEnd()}${suffix}`;
}

/** Whether a reader would see anything of it: a letter, a digit, a sign. */
export const isVisible = (text: string): boolean => /[\p{L}\p{N}\p{P}\p{S}]/u.test(text);

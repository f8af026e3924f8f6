/*
 * What a topology says of itself, and its formulas, speak of the names in its own drawing. In a path
 * parts are numbered on: there they carry other names, by which a reader has to be told of them.
 */

/** What a part is called in the path, by its own name; nothing for what is no part of the stage. */
export type NameInPath = (part: string) => string | undefined;

/** A sentence with the names that parts carry in the path. */
export const wordsInPath = (words: string, nameOf: NameInPath): string =>
  words.replace(/\b[RCLGAV](?:\d+|[A-Z])\b/g, (part) => nameOf(part) ?? part);

/** The same for a formula in TeX: `R_{6}`, `R_6`. */
export const texInPath = (tex: string, nameOf: NameInPath): string =>
  tex.replace(
    /\b([RCLG])_(?:\{(\w+)\}|(\w))/g,
    (text, letter: string, long: string | undefined, short: string | undefined) => {
      const shown = nameOf(letter + (long ?? short ?? ''));
      return shown === undefined ? text : `${shown[0]}_{${shown.slice(1)}}`;
    },
  );

import {
  plain,
  quotient,
  LONG_ONE,
  negative,
  product,
  sum,
  type Long,
} from '@/core/numeric/double-double';
import { ReedError } from '@/core/errors';
import type { ExactSlot } from '../linear/exact-matrix';
import { blocksOf, type Block } from './blocks';
import { eigenvalues, type Eigenvalue } from './eigenvalues';
import { LongMatrix } from './long-matrix';
import { finitePart, type Pencil } from './pencil';

/** A root in the s plane, rad/s. */
export interface Root {
  re: number;
  im: number;
}

/**
 * The roots of det(G + s C): the finite generalised eigenvalues of the pencil, each as often as it
 * counts, smallest first. Rounding neither loses nor invents any: what is infinite or zero is taken
 * off first by decisions in numbers of two doubles, block by block.
 *
 * @returns undefined where the determinant is zero at every s
 * @throws ReedError `convergence` where eigenvalues cannot be found
 */
export function rootsOf(size: number, slots: readonly ExactSlot[]): Root[] | undefined {
  const columnsOf = Array.from({ length: size }, (): number[] => []);
  for (const { row, column, g, c } of slots)
    if (g.hi !== 0 || c.hi !== 0) columnsOf[row].push(column);
  const blocks = blocksOf(columnsOf);
  if (!blocks) return undefined;
  const roots: Root[] = [];
  for (const block of blocks) {
    const found = blockRoots(pencilOf(block, slots));
    if (!found) return undefined;
    roots.push(...found);
  }
  return together(roots);
}

function pencilOf({ rows, columns }: Block, slots: readonly ExactSlot[]): Pencil {
  const n = rows.length;
  const g = new LongMatrix(n);
  const c = new LongMatrix(n);
  const rowAt = new Map(rows.map((row, i) => [row, i]));
  const columnAt = new Map(columns.map((column, i) => [column, i]));
  for (const slot of slots) {
    const [row, column] = [rowAt.get(slot.row), columnAt.get(slot.column)];
    if (row === undefined || column === undefined) continue;
    g.set(row, column, slot.g);
    c.set(row, column, slot.c);
  }
  const all = Array.from({ length: n }, (_, i) => i);
  return { g, c, rows: all, columns: all };
}

function blockRoots(pencil: Pencil): Root[] | undefined {
  const finite = finitePart(pencil);
  if (!finite) return undefined;
  // With G and C changed over, what is taken off are the roots at zero.
  const { g, c, rows, columns } = finite;
  const rest = finitePart({ g: c, c: g, rows, columns });
  if (!rest) return undefined;
  const zeros = Array.from({ length: rows.length - rest.rows.length }, () => ({ re: 0, im: 0 }));
  // G has one entry in each row now: -G^-1 C is C with its rows divided, and its eigenvalues are 1/s.
  const matrix = rest.rows.map((row) => {
    const pivot = rest.columns.find((column) => rest.c.get(row, column).hi !== 0)!;
    const own = negative(rest.c.get(row, pivot));
    return { pivot, entries: rest.columns.map((column) => quotient(rest.g.get(row, column), own)) };
  });
  const ordered = rest.columns.map((column) => matrix.find((row) => row.pivot === column)!.entries);
  const found = eigenvalues(ordered);
  if (!found)
    throw new ReedError(
      'convergence',
      'The poles of this circuit cannot be found: the iteration for them does not settle.',
    );
  return [...zeros, ...found.map(inverse)];
}

function inverse({ re, im }: Eigenvalue): Root {
  if (im.hi === 0) return { re: plain(quotient(LONG_ONE, re)), im: 0 };
  const norm: Long = sum(product(re, re), product(im, im));
  return { re: plain(quotient(re, norm)), im: plain(negative(quotient(im, norm))) };
}

/** Roots nearer to each other than this part of themselves are one. */
const SAME = 1e-7;

/**
 * Roots in rising order; those that differ by no more than values of parts can be written down are
 * one root, counted as often: their mean, which rounding moves far less than each of them.
 */
function together(roots: readonly Root[]): Root[] {
  const left = [...roots].sort((a, b) => sizeOf(a) - sizeOf(b));
  const result: Root[] = [];
  while (left.length > 0) {
    const group = [left.shift()!];
    for (
      let i = 0;
      i < left.length && sizeOf(left[i]) - sizeOf(group[0]) <= SAME * sizeOf(group[0]);
    )
      if (group.some((root) => apart(root, left[i]) <= SAME * sizeOf(root)))
        group.push(...left.splice(i, 1));
      else i++;
    const mean = { re: 0, im: 0 };
    for (const { re, im } of group) {
      mean.re += re / group.length;
      mean.im += im / group.length;
    }
    // A pair that has met on the axis.
    if (group.some(({ im }) => im <= 0) && group.some(({ im }) => im >= 0)) mean.im = 0;
    result.push(...group.map(() => mean));
  }
  return result.sort((a, b) => sizeOf(a) - sizeOf(b) || b.im - a.im);
}

const sizeOf = ({ re, im }: Root): number => Math.hypot(re, im);
const apart = (a: Root, b: Root): number => Math.hypot(a.re - b.re, a.im - b.im);

import { quoted } from '@/core/text';
import { bodyHoles, keyOf, type Board, type Component, type Hole } from './board';
import { solderedOn, type Soldered } from './wire';

/** What is wrong with a board, and where. */
export interface BoardFault {
  words: string;
  holes: Hole[];
}

/** Rows and columns are counted from one, as they are on the bench. */
export const holeWords = ({ row, col }: Hole): string => `row ${row + 1}, hole ${col + 1}`;

/**
 * Whether a board joins what the circuit joins and nothing else: followed along its copper, from hole to
 * hole, without regard to how it was planned.
 */
export function boardFaults(components: readonly Component[], board: Board): BoardFault[] {
  const faults: BoardFault[] = [];
  const soldered = solderedOn(components, board.parts);
  const isOn = ({ row, col }: Hole) => row >= 0 && row < board.rows && col >= 0 && col < board.cols;
  for (const { part, pin, hole } of soldered)
    if (!isOn(hole))
      faults.push({ words: `${part}, ${pin}, stands beside the board.`, holes: [hole] });
  faults.push(...crowded(components, board, soldered));
  const copper = new Copper(board);
  faults.push(
    ...joinedWrongly(
      soldered.filter((s) => isOn(s.hole)),
      copper,
    ),
  );
  return faults;
}

function crowded(
  components: readonly Component[],
  board: Board,
  soldered: readonly Soldered[],
): BoardFault[] {
  const faults: BoardFault[] = [];
  const holders = new Map<number, string>();
  const take = (hole: Hole, who: string) => {
    const other = holders.get(keyOf(hole));
    if (other !== undefined && other !== who)
      faults.push({
        words: `${other} and ${who} want the same hole: ${holeWords(hole)}.`,
        holes: [hole],
      });
    else holders.set(keyOf(hole), who);
  };
  for (const { part, hole } of soldered) take(hole, part);
  for (const c of components) for (const hole of bodyHoles(c, board.parts[c.id])) take(hole, c.id);
  for (const { from, to, net } of board.links)
    for (const hole of [from, to]) take(hole, `the link of ${quoted(net)}`);
  // A strip can be cut beneath a body, at no hole that something is soldered in.
  const pins = new Set(soldered.map((s) => keyOf(s.hole)));
  for (const { from, to } of board.links) [from, to].forEach((h) => pins.add(keyOf(h)));
  for (const cut of board.cuts)
    if (pins.has(keyOf(cut)))
      faults.push({ words: `The cut at ${holeWords(cut)} is at a soldered hole.`, holes: [cut] });
  return faults;
}

function joinedWrongly(soldered: readonly Soldered[], copper: Copper): BoardFault[] {
  const faults: BoardFault[] = [];
  const byPiece = new Map<number, Soldered[]>();
  const byNet = new Map<string, Set<number>>();
  for (const s of soldered) {
    const piece = copper.pieceOf(s.hole);
    byPiece.set(piece, [...(byPiece.get(piece) ?? []), s]);
    byNet.set(s.net, (byNet.get(s.net) ?? new Set()).add(piece));
  }
  for (const pins of byPiece.values()) {
    const other = pins.find((p) => p.net !== pins[0].net);
    if (other)
      faults.push({
        words: `${pins[0].part}, ${pins[0].pin}, and ${other.part}, ${other.pin}, are joined and must not be.`,
        holes: [pins[0].hole, other.hole],
      });
  }
  for (const [net, pieces] of byNet)
    if (pieces.size > 1) {
      const ends = [...pieces].map((p) => byPiece.get(p)![0]);
      faults.push({
        words: `${ends.map((e) => `${e.part}, ${e.pin}`).join(' and ')} must be joined (${quoted(net)}) and are not.`,
        holes: ends.map((e) => e.hole),
      });
    }
  return faults;
}

/** The copper of a board: which holes it joins. */
class Copper {
  private readonly parent = new Map<number, number>();

  constructor({ rows, cols, cuts, links }: Board) {
    const cut = new Set(cuts.map(keyOf));
    for (let row = 0; row < rows; row++)
      for (let col = 1; col < cols; col++) {
        const [a, b] = [keyOf({ row, col: col - 1 }), keyOf({ row, col })];
        if (!cut.has(a) && !cut.has(b)) this.join(a, b);
      }
    for (const { from, to } of links) this.join(keyOf(from), keyOf(to));
  }

  pieceOf(hole: Hole): number {
    return this.root(keyOf(hole));
  }

  private root(key: number): number {
    let at = key;
    for (let up = this.parent.get(at); up !== undefined; up = this.parent.get(at)) at = up;
    return at;
  }

  private join(a: number, b: number): void {
    const [x, y] = [this.root(a), this.root(b)];
    if (x !== y) this.parent.set(x, y);
  }
}

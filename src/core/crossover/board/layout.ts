import type { BoardLayout, PlacedPart } from '@/core/sheet/board-schema';
import { drawnParts } from '@/core/sheet/stage';
import type { Stage, Way } from '@/core/sheet/schema';
import type { Coil, Vector } from '@/core/speaker/coils/coil';
import { crossoverNames } from '../network-drawing';
import type { CrossoverDesign } from '../crossover-design';
import { sizeOfPart, type PartSize } from './sizes';

/** A part as it lies on the board. */
export interface BoardPart extends PlacedPart, PartSize {
  kind: string;
  /** What it is called in the drawing. */
  name: string;
  way: number;
}

/** Between parts, and around them. */
const APART = 0.012;
const MARGIN = 0.015;
/** Room at the foot of the board for the common return. */
export const BUS_METRES = 0.02;
/** Neighbouring coils lie in three ways, so that their axes stand across each other. */
const TURNS = [
  { lies: 'flat', degrees: 0 },
  { lies: 'edge', degrees: 0 },
  { lies: 'edge', degrees: 90 },
] as const;

/** What a coil or another part takes of the board, as it lies. */
export function footprint({
  lies,
  degrees,
  alongMetres,
  acrossMetres,
  coil,
}: Pick<BoardPart, 'lies' | 'degrees' | 'alongMetres' | 'acrossMetres' | 'coil'>): {
  width: number;
  height: number;
} {
  if (coil && lies === 'flat') return { width: coil.outerMetres, height: coil.outerMetres };
  const [along, across] = coil
    ? [coil.lengthMetres, coil.outerMetres]
    : [alongMetres, acrossMetres];
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  return { width: along * cos + across * sin, height: along * sin + across * cos };
}

/**
 * Every part of a passive network on its board: where it was put, or in a row for each way in the
 * order of the signal, coils across each other.
 */
export function boardOf(design: Pick<CrossoverDesign, 'ways' | 'crossover'>): {
  board: BoardLayout;
  parts: BoardPart[];
} {
  const { board } = design.crossover;
  const names = crossoverNames(design.ways);
  const placed = new Map(board?.parts.map((p) => [`${p.stage}/${p.part}`, p]));
  const parts: BoardPart[] = [];
  let [coils, y, widest] = [0, MARGIN, 0];
  design.ways.forEach((way, w) => {
    const row = partsOfWay(way).map(({ stage, part, kind }): BoardPart => {
      const size = sizeOfPart(kind, stage.parts[part]);
      const turn = size.coil
        ? TURNS[coils++ % TURNS.length]
        : ({ lies: 'flat', degrees: 0 } as const);
      return {
        stage: stage.id,
        part,
        kind,
        name: names.get(stage.id)?.get(part) ?? part,
        way: w,
        xMetres: 0,
        yMetres: 0,
        ...turn,
        ...size,
      };
    });
    const height = Math.max(0, ...row.map((p) => footprint(p).height));
    let x = MARGIN;
    for (const own of row) {
      const { width } = footprint(own);
      parts.push({
        ...own,
        xMetres: x + width / 2,
        yMetres: y + height / 2,
        ...placed.get(`${own.stage}/${own.part}`),
      });
      x += width + APART;
    }
    widest = Math.max(widest, x - APART + MARGIN);
    y += height + APART;
  });
  const round = (metres: number) => Math.ceil(metres * 100) / 100;
  return {
    board: board ?? {
      widthMetres: Math.max(0.1, round(widest)),
      heightMetres: Math.max(0.08, round(y - APART + MARGIN + BUS_METRES)),
      coupled: false,
      parts: [],
    },
    parts,
  };
}

const partsOfWay = ({ stages }: Way): { stage: Stage; part: string; kind: string }[] =>
  stages
    .filter((s) => !s.bypassed)
    .flatMap((stage) =>
      drawnParts(stage).flatMap(({ id, kind }) =>
        stage.parts[id]?.value === undefined ? [] : [{ stage, part: id, kind }],
      ),
    );

/** A coil of the board in space: the board is the plane of x and y, its parts stand on it. */
export function coilInSpace({ coil, xMetres, yMetres, lies, degrees }: BoardPart): Coil {
  const { innerMetres, outerMetres, lengthMetres, turns } = coil!;
  const angle = (degrees * Math.PI) / 180;
  const axis: Vector = lies === 'flat' ? [0, 0, 1] : [Math.cos(angle), Math.sin(angle), 0];
  const high = lies === 'flat' ? lengthMetres / 2 : outerMetres / 2;
  return {
    innerMetres,
    outerMetres,
    lengthMetres,
    turns,
    centreMetres: [xMetres, yMetres, high],
    axis,
  };
}

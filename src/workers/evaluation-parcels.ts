import type { EvaluatedStage, Evaluation, EvaluatedReading, Layer } from '@/core/sheet/evaluate';
import type { Joint } from '@/core/sheet/joints';
import type { Keep, Sheet, SheetDesign, Stage, Way } from '@/core/sheet/schema';
import type { LayerTrace, ReadingResult } from '@/core/sheet/solved-way';
import type { Packer, Parcel, Unpacker } from './parcel';

type PackedWay = Omit<Way, 'stages' | 'to'> & { stages: number[]; to: number };
type PackedKeep = Omit<Keep, 'design'> & { design: number };
type PackedSheet = Omit<Sheet, 'ways' | 'keeps'> & { ways: PackedWay[]; keeps: PackedKeep[] };

/** An edit changes one stage: the others, what ways end in, and all that is kept, stay where they are. */
export const packSheet = (packer: Packer, sheet: Sheet): Parcel<PackedSheet> =>
  packer.pack((piece) => ({
    ...sheet,
    ways: sheet.ways.map((way) => ({
      ...way,
      stages: way.stages.map(piece),
      to: piece(way.to),
    })),
    keeps: sheet.keeps.map((keep) => ({ ...keep, design: piece(keep.design) })),
  }));

export const unpackSheet = (unpacker: Unpacker, parcel: Parcel<PackedSheet>): Sheet =>
  unpacker.unpack(parcel, (body, piece) => ({
    ...body,
    ways: body.ways.map((way) => ({
      ...way,
      stages: way.stages.map((n) => piece(n) as Stage),
      to: piece(way.to) as Way['to'],
    })),
    keeps: body.keeps.map((keep) => ({ ...keep, design: piece(keep.design) as SheetDesign })),
  }));

interface PackedEvaluation {
  layers: (Omit<Layer, 'trace'> & { trace: number })[];
  readings: { id: string; results: [string, number][] }[];
  stages: number[];
  joints: number;
  peaksDb: Evaluation['peaksDb'];
  problems: string[];
}

/** Curves, figures and joints that stand on nothing that changed are not sent again. */
export const packEvaluation = (
  packer: Packer,
  { layers, readings, stages, joints, peaksDb, problems }: Evaluation,
): Parcel<PackedEvaluation> =>
  packer.pack((piece) => ({
    layers: layers.map((layer) => ({ ...layer, trace: piece(layer.trace) })),
    readings: readings.map(({ id, results }) => ({
      id,
      results: Object.entries(results as Record<string, ReadingResult>).map(([layer, result]) => [
        layer,
        piece(result),
      ]),
    })),
    stages: stages.map(piece),
    joints: piece(joints),
    peaksDb,
    problems,
  }));

export const unpackEvaluation = (
  unpacker: Unpacker,
  parcel: Parcel<PackedEvaluation>,
): Evaluation =>
  unpacker.unpack(parcel, (body, piece) => ({
    ...body,
    layers: body.layers.map((layer) => ({ ...layer, trace: piece(layer.trace) as LayerTrace })),
    readings: body.readings.map(({ id, results }): EvaluatedReading => ({
      id,
      results: Object.fromEntries(results.map(([layer, n]) => [layer, piece(n) as ReadingResult])),
    })),
    stages: body.stages.map((n) => piece(n) as EvaluatedStage),
    joints: piece(body.joints) as Joint[],
  }));

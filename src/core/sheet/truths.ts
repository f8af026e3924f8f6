import type { OpAmpModel } from '@/core/circuit/devices/op-amp-model';
import type { Drawing } from '@/core/drawing/drawing';
import type { DrawnPart } from '@/core/drawing/nets';
import type { PartData } from '@/core/topologies/instantiate';
import { exactValues } from './exact';
import type { PartChoices, Stage } from './schema';
import { designedAs, drawingOf, partDataOf } from './stage';

/**
 * Everything that tells a path as it is built from its mathematics. Each can be made true of a circuit
 * by itself: none of them is the ideal path, all of them are the built one.
 */
export const TRUTHS = [
  'values',
  'wiring',
  'losses',
  'gain',
  'bandwidth',
  'output',
  'input',
  'loading',
  'reference',
  'source',
  'load',
] as const;

export type Truth = (typeof TRUTHS)[number];
export type Truths = ReadonlySet<Truth>;

export const ALL_TRUTHS: Truths = new Set(TRUTHS);
export const NO_TRUTHS: Truths = new Set();

/** What belongs to the model of an op-amp. */
const OF_OP_AMPS: readonly Truth[] = ['gain', 'bandwidth', 'output', 'input'];

/** Drawing and parts of a stage of which so much is true: what is not true is as it was designed. */
export function stageOf(
  stage: Stage,
  choices: Pick<PartChoices, 'opAmp'>,
  truths: Truths,
): { drawing: Drawing; dataOf: (part: DrawnPart) => PartData } {
  const built = partDataOf(stage, choices);
  if (truths.size === TRUTHS.length) return { drawing: drawingOf(stage), dataOf: built };
  const exact = exactValues(stage);
  const topology = designedAs(stage);
  const opAmpOf = (part: DrawnPart): PartData => ({
    model: partOfModel(built(part).model as 'ideal' | OpAmpModel, truths),
  });
  if (!topology || !exact)
    return {
      drawing: drawingOf(stage),
      dataOf: (part) =>
        part.kind === 'op-amp' ? { ...built(part), ...opAmpOf(part) } : built(part),
    };
  return {
    drawing: truths.has('wiring') ? drawingOf(stage) : topology.drawing,
    dataOf: (part) => {
      if (part.kind === 'op-amp') return opAmpOf(part);
      const { lossOhms, ...chosen } = built(part);
      const value = exact[part.id] as number | undefined;
      const known = truths.has('values') || value === undefined ? chosen : { value };
      return truths.has('losses') && lossOhms !== undefined ? { ...known, lossOhms } : known;
    },
  };
}

/** More gain, dB, and more bandwidth, Hz, than makes a difference at any frequency of interest. */
const ENDLESS_DB = 200;
const ENDLESS_HZ = 1e18;

/** A model of which only some figures are other than ideal. */
function partOfModel(model: 'ideal' | OpAmpModel, truths: Truths): 'ideal' | OpAmpModel {
  if (model === 'ideal' || !OF_OP_AMPS.some((t) => truths.has(t))) return 'ideal';
  const part = { ...model };
  if (!truths.has('gain')) part.dcGainDb = ENDLESS_DB;
  if (!truths.has('bandwidth')) {
    part.gainBandwidthHz = ENDLESS_HZ;
    delete part.secondPoleHz;
  }
  if (!truths.has('output')) delete part.outputOhms;
  if (!truths.has('input')) {
    delete part.inputOhms;
    delete part.inputFarads;
  }
  return part;
}

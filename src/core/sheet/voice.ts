import type { Cell, CellAsk } from '@/core/cells/cell';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { USUAL_CONVERTER } from '@/core/synth/converter';
import { isConverted } from './controls';
import { DEFAULT_PARTS, makeSheet } from './make';
import { plannedStage } from './planned-stage';
import type { Control, Reading, Sheet, Stage, Supply } from './schema';

/** A cell as a stage, planned for a range of cut-offs, and what controls it. */
export function cellStage(
  id: string,
  cell: Cell,
  ask: CellAsk,
): { stage: Stage; controls: Control[] } {
  const plan = cell.plan(ask);
  const { name, drawing } = cell;
  return {
    stage: { ...plannedStage({ id, name, drawing, parts: plan.parts }), cell: cell.id },
    controls: plan.controls.map(({ for: what, moves, ...control }, k) => {
      const made = {
        ...control,
        id: `${id}c${k + 1}`,
        for: what,
        moves: moves.map((move) => ({ stage: id, ...move })),
      };
      return isConverted(made) ? { ...made, converter: USUAL_CONVERTER } : made;
    }),
  };
}

const EDGE: readonly Reading[] = [
  {
    id: 'r1',
    measure: {
      measure: 'edge',
      downDb: HALF_POWER_DB,
      side: 'upper',
      reference: { from: 'plateau' },
    },
  },
  { id: 'r3', measure: { measure: 'plateau' } },
];
const PEAK: readonly Reading[] = [{ id: 'r1', measure: { measure: 'peak-frequency' } }];

/** What a voltage-controlled filter is read by. */
const voiceReadings = ({ passes }: Cell): Reading[] => [
  ...(passes === 'peak' ? PEAK : EDGE),
  { id: 'r2', measure: { measure: 'peak-level' } },
];

export interface VoiceRequest extends CellAsk {
  id: string;
  demo?: string;
  title: string;
  at: string;
  cell: Cell;
  source: { name: string; ohms: number; volts?: number };
  load: { name: string; ohms: number | null };
  /** What feeds its op-amps, where that is not the usual. */
  supply?: Supply;
}

/** Transconductors give next to no current at the bottom of their range: the inputs behind them must take less. */
const FET_INPUT = OP_AMPS.find((m) => m.name.startsWith('FET-input'))!;

/** A sheet that begins with a voltage-controlled cell. */
export function voiceSheet({ cell, lowHz, highHz, supply, ...request }: VoiceRequest): Sheet {
  const sheet = makeSheet({
    ...request,
    parts: { ...DEFAULT_PARTS, opAmp: { ...FET_INPUT }, ...(supply ? { supply } : {}) },
    // The ask only says what the sheet is about: the cell does not follow it.
    ask: {
      kind: 'low-pass',
      shape: 'butterworth',
      order: 4,
      edgeHz: Math.sqrt(lowHz * highHz),
      edge: 'half-power',
    },
    readings: voiceReadings(cell),
  });
  const { stage, controls } = cellStage('s1', cell, { lowHz, highHz });
  const [way] = sheet.ways;
  return {
    ...sheet,
    ways: [{ ...way, stages: [stage] }],
    controls,
    view: { ...sheet.view, lens: 'control', fromHz: 20, toHz: 20_000 },
  };
}

import type { Cell } from './cell';
import { nineVoltBox } from './nine-volt-box';
import { otaCascade } from './ota-cascade';
import { otaOnePole } from './ota-one-pole';
import { otaFeedbackBuffer, otaFeedbackGain } from './ota-positive-feedback';
import { otaStateVariable } from './ota-state-variable';
import { photocellGate } from './photocell-gate';
import { transistorLadder } from './transistor-ladder';

/** Every voltage-controlled cell. A new one is one file and one line here. */
export const CELLS: readonly Cell[] = [
  otaOnePole,
  otaStateVariable,
  otaFeedbackGain,
  otaFeedbackBuffer,
  otaCascade,
  transistorLadder,
  photocellGate,
  nineVoltBox,
];

export const cellOf = (id: string | undefined): Cell | undefined => CELLS.find((c) => c.id === id);

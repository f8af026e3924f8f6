import type { Cell } from './cell';
import { diodeLadder } from './diode-ladder';
import { diodeSection, diodeSections } from './diode-sections';
import { nineVoltBox, nineVoltLights } from './nine-volt-box';
import { otaCascade } from './ota-cascade';
import { otaOnePole } from './ota-one-pole';
import { otaFeedbackBuffer, otaFeedbackGain } from './ota-positive-feedback';
import { otaStateVariable } from './ota-state-variable';
import { otaTwoPole } from './ota-two-pole';
import { photocellGate } from './photocell-gate';
import { rcKnob } from './rc-knob';
import { transistorLadder } from './transistor-ladder';
import { treadle } from './treadle';

/** Every voltage-controlled cell. A new one is one file and one line here. */
export const CELLS: readonly Cell[] = [
  rcKnob,
  diodeSection,
  diodeSections,
  otaOnePole,
  otaTwoPole,
  otaStateVariable,
  otaFeedbackGain,
  otaFeedbackBuffer,
  otaCascade,
  transistorLadder,
  diodeLadder,
  photocellGate,
  nineVoltBox,
  nineVoltLights,
  treadle,
];

export const cellOf = (id: string | undefined): Cell | undefined => CELLS.find((c) => c.id === id);

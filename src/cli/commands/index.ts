import type { Command } from '../command';
import { ac } from './ac';
import { check } from './check';
import { design } from './design';
import { draw } from './draw';
import { fit } from './fit';
import { graft } from './graft';
import { dc } from './dc';
import { harmonics } from './harmonics';
import { noise } from './noise';
import { poles } from './poles';
import { sensitivity } from './sensitivity';
import { sheet } from './sheet';
import { solveFor } from './solve-for';
import { spread } from './spread';
import { topologies } from './topologies';
import { transient } from './transient';
import { weigh } from './weigh';

export const COMMANDS: readonly Command[] = [
  ac,
  dc,
  noise,
  transient,
  poles,
  sensitivity,
  harmonics,
  sheet,
  design,
  fit,
  spread,
  solveFor,
  weigh,
  topologies,
  graft,
  draw,
  check,
];

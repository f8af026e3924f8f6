import type { Command } from '../command';
import { ac } from './ac';
import { archive } from './archive';
import { check } from './check';
import { coils } from './coils';
import { design } from './design';
import { diff } from './diff';
import { draw } from './draw';
import { fit } from './fit';
import { graft } from './graft';
import { dc } from './dc';
import { harmonics } from './harmonics';
import { minimumPhase } from './minimum-phase';
import { noise } from './noise';
import { poles } from './poles';
import { render } from './render';
import { report } from './report';
import { rig } from './rig';
import { sensitivity } from './sensitivity';
import { sheet } from './sheet';
import { solveFor } from './solve-for';
import { speaker } from './speaker';
import { spread } from './spread';
import { suspects } from './suspects';
import { table } from './table';
import { threshold } from './threshold';
import { topologies } from './topologies';
import { transient } from './transient';
import { tune } from './tune';
import { tuneCrossover } from './tune-crossover';
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
  tune,
  threshold,
  render,
  weigh,
  topologies,
  graft,
  draw,
  speaker,
  tuneCrossover,
  minimumPhase,
  coils,
  rig,
  suspects,
  table,
  diff,
  report,
  archive,
  check,
];

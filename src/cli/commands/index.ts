import type { Command } from '../command';
import { ac } from './ac';
import { check } from './check';
import { dc } from './dc';
import { harmonics } from './harmonics';
import { noise } from './noise';
import { poles } from './poles';
import { sensitivity } from './sensitivity';
import { sheet } from './sheet';
import { transient } from './transient';

export const COMMANDS: readonly Command[] = [
  ac,
  dc,
  noise,
  transient,
  poles,
  sensitivity,
  harmonics,
  sheet,
  check,
];

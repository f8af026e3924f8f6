import type { PartOf } from './schema';

/** What drives a path is called by what it is. */
export const SOURCE = 'source';

/** 1 V of a small signal from the net `in` to ground: levels are then counted from the source. */
export const UNIT_SOURCE: PartOf<'voltage-source'> = {
  id: SOURCE,
  kind: 'voltage-source',
  plus: 'in',
  minus: '0',
  acVolts: 1,
};

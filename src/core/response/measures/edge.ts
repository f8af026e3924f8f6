import * as z from 'zod';
import { between } from '@/core/quantity/bounds';
import { HALF_POWER_DB } from '../decibels';
import { baseOf, defineMeasure, referenceSchema, referenceWords } from './measure';

const edgeSchema = z.strictObject({
  measure: z.literal('edge'),
  downDb: between(0.001, 400),
  side: z.enum(['upper', 'lower']),
  reference: referenceSchema.default({ from: 'plateau' }),
});

/** Where the pass band ends: the last crossing outwards; what dips and comes back is named beside it. */
export const edge = defineMeasure({
  schema: edgeSchema,
  needs: 'transfer',
  quantity: 'hertz',
  read(reader, { downDb, side, reference }) {
    const { db, hz } = baseOf(reader, reference);
    const found = reader.crossing(db - downDb, hz, side, downDb);
    return {
      value: found.hz,
      atHz: found.hz,
      ...(found.others.length > 0 ? { alsoHz: found.others } : {}),
    };
  },
  name({ downDb, side, reference }, words) {
    const under = reference.from === 'plateau' ? '' : ` under ${referenceWords(reference, words)}`;
    // Three is seldom meant to the digit: where it is, that is said.
    const exactly = downDb === 3 || downDb === 6 ? 'exactly ' : '';
    return `${side === 'upper' ? 'Upper' : 'Lower'} edge, ${exactly}${words.number(downDb)}\u00a0dB down${under}`;
  },
  asked: [
    {
      title: 'Edge, so many dB down',
      fields: [
        {
          is: 'decibels',
          name: 'downDb',
          label: 'dB down (3.01 is half power)',
          text: HALF_POWER_DB.toFixed(2),
          exact: HALF_POWER_DB,
        },
        { is: 'reference', among: ['plateau', 'peak'] },
        { is: 'side' },
      ],
    },
  ],
});

import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import {
  measureSchema,
  type AskedMeasure,
  type Measure,
  type MeasureField,
} from '@/core/response/readings';

/** What stands in a field of a measure at first. */
export function startText(
  field: MeasureField,
  cursorHz: number,
  side: string,
  mark: DecimalMark,
): string {
  switch (field.is) {
    case 'hertz':
      return formatQuantity(cursorHz * field.timesCursor, 'hertz', { digits: 4, mark });
    case 'decibels':
      return field.text;
    case 'reference':
      return field.among[0];
    case 'side':
      return side;
  }
}

/** The measure that a choice and its fields make. */
export const measureOf = ({ measure, given }: AskedMeasure, fields: object): Measure =>
  measureSchema.parse({ measure, ...given, ...fields });

/** The part of a measure that a field makes of what stands in it. */
export function measured(
  field: MeasureField,
  text: string,
  mark: DecimalMark,
): Record<string, unknown> {
  switch (field.is) {
    case 'hertz': {
      const hz = parseQuantity(text, 'hertz', mark);
      if (!(hz > 0)) throw new Error('A frequency must be above 0 Hz.');
      return { [field.name]: hz };
    }
    case 'decibels': {
      // What stood there at first is meant to all its digits.
      const asItStood = text.trim().replace(',', '.') === field.text;
      const db = asItStood ? field.exact : Math.abs(parseQuantity(text, 'decibels', mark));
      if (db === 0) throw new Error('An edge must be some dB down: enter more than 0.');
      return { [field.name]: db };
    }
    case 'reference':
      return text === 'source' ? {} : { reference: { from: text } };
    case 'side':
      return { side: text };
  }
}

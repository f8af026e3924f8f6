import { formatQuantity } from '@/core/quantity/format';
import type { DecimalMark } from '@/core/quantity/parse';
import type { Supply } from './schema';

/** What a sheet is fed by where it does not say. */
const USUAL: Supply = { is: 'split', volts: 15 };

export const supplyOf = (supply: Supply | undefined): Supply => supply ?? USUAL;

/** “±15 V”, or “9 V alone”. */
export function supplyWords(supply: Supply | undefined, mark: DecimalMark = 'point'): string {
  const { is, volts } = supplyOf(supply);
  const printed = formatQuantity(volts, 'volts', { unit: true, mark });
  return is === 'split' ? `±${printed}` : `${printed} alone`;
}

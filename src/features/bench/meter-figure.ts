import { formatFixed, formatQuantity } from '@/core/quantity/format';
import { QUANTITIES, type QuantityKind } from '@/core/quantity/kinds';
import type { DecimalMark } from '@/core/quantity/parse';

/** As a meter shows it: levels and angles to a hundredth, other quantities with unit and three digits. */
export const meterFigure = (value: number, quantity: QuantityKind, mark: DecimalMark): string =>
  QUANTITIES[quantity].prefixed
    ? formatQuantity(value, quantity, { digits: 3, unit: true, mark })
    : formatFixed(value, 2, mark);

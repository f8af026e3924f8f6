import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';

/** A quantity as TeX, with its unit upright: 4.7 kΩ. */
export function texQuantity(value: number, kind: QuantityKind, digits = 4): string {
  const text = formatQuantity(value, kind, { digits, unit: true }).replace('\u2212', '-');
  const [number, unit = ''] = text.split('\u00a0');
  const upright = unit.replace('Ω', '\\Omega').replace('µ', '\\mu ');
  return upright === '' ? number : `${number}\\,\\mathrm{${upright}}`;
}

export const ohms = (value: number) => texQuantity(value, 'ohms');
export const farads = (value: number) => texQuantity(value, 'farads');
export const hertz = (value: number) => texQuantity(value, 'hertz');
export const plain = (value: number) => texQuantity(value, 'ratio');

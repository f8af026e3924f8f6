import type { Drawing } from '@/core/drawing/drawing';
import { sketch } from '@/core/drawing/sketch';
import { TWO_PI, type Values } from '../topology';
import type { Why } from '../why';

/** The non-inverting amplifier with capacitors in its divider: none, one or both of them. */
export function shapedGainDrawing(top: boolean, bottom: boolean): Drawing {
  return sketch(`in 0,2 / 0,2 6,2 / op-amp A1 6,2 plus / 10,3 15,3 / out 15,3
    6,4 6,7 / 6,7 8,7 / resistor RF 8,7 right / 12,7 13,7 13,3 / resistor RG 6,7 down left
    ${top ? '7,7 7,10 8,10 / capacitor CF 8,10 right / 12,10 13,10 13,7' : ''}
    ${bottom ? 'capacitor CG 6,11 down left / ground 6,15' : 'ground 6,11'}`);
}

export const midGain = ({ RF, RG }: Values): number => 1 + RF / RG;

/** Where |H| is 3.01 dB below its full gain K when it returns to unity instead of nothing; none for K <= sqrt 2. */
export function returningEdge(breakHz: number, K: number, side: 'upper' | 'lower'): string {
  if (K * K <= 2) return 'the level never falls by 3 dB, since it returns to unity first.';
  const factor = K / Math.sqrt(K * K - 2);
  const hz = side === 'upper' ? breakHz * factor : breakHz / factor;
  const unity = side === 'upper' ? breakHz * K : breakHz / K;
  return `3.01 dB down at ${hz.toPrecision(4)} Hz, because the gain returns to one from ${unity.toPrecision(4)} Hz on.`;
}

export const breakHz = (ohms: number, farads: number): number => 1 / (TWO_PI * ohms * farads);

export const DIVIDER_WHY: readonly Why[] = [
  { of: 'RF', formula: '(@K - 1) @RG', text: 'Upper half of the divider.' },
  { of: 'RG', formula: '\\frac{@RF}{@K - 1}', text: 'Lower half of the divider.' },
];

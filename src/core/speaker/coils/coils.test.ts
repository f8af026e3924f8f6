import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Coil } from './coil';
import { coupled, mutualInductance } from './mutual';
import { selfInductance } from './self';
import { windCoil, windOnFormer } from './wind';

const { tolerance, pairs } = JSON.parse(
  readFileSync(join(__dirname, '../../fixtures/coils.json'), 'utf8'),
) as {
  tolerance: number;
  pairs: { title: string; coils: [Coil, Coil]; henries: [number, number]; k: number }[];
};

test.each(pairs)('$title', ({ coils: [a, b], henries, k }) => {
  const found = coupled(a, b);
  henries.forEach((h, i) => expect(Math.abs(found.henries[i] / h - 1)).toBeLessThan(0.001));
  expect(Math.abs(found.k - k)).toBeLessThan(Math.max(1e-4, tolerance * Math.abs(k)));
  // What one sees of the other, the other sees of it.
  expect(Math.abs(coupled(b, a).k - found.k)).toBeLessThan(1e-6);
});

test('inductances of books: a current sheet by Nagaoka, and the winding of Brooks', () => {
  const sheet = { innerMetres: 0.03999, outerMetres: 0.04001, lengthMetres: 0.04, turns: 100 };
  // mu0 N^2 pi a^2/l times Nagaoka's coefficient 0.688423 for a diameter that is the length.
  const nagaoka = ((4e-7 * Math.PI * 1e4 * Math.PI * 0.02 ** 2) / 0.04) * 0.688423;
  expect(selfInductance(sheet) / nagaoka).toBeCloseTo(1, 3);
  const brooks = { innerMetres: 0.04, outerMetres: 0.08, lengthMetres: 0.02, turns: 1 };
  expect(selfInductance(brooks) / (1.6994e-6 * 0.03)).toBeCloseTo(1, 4);
});

test('far apart two coils are dipoles', () => {
  const coil = (x: number, axis: [number, number, number]): Coil => ({
    innerMetres: 0.02,
    outerMetres: 0.03,
    lengthMetres: 0.01,
    turns: 50,
    centreMetres: [x, 0, 0],
    axis,
  });
  const far = 2;
  // Mean square of the radius over the winding.
  const area = (Math.PI * (0.015 ** 3 - 0.01 ** 3)) / (3 * 0.005);
  const moment = 50 * area;
  const side = (-1e-7 * moment ** 2) / far ** 3;
  const found = mutualInductance(coil(0, [0, 0, 1]), coil(far, [0, 0, 1]));
  expect(found / side).toBeCloseTo(1, 3);
  const inLine = mutualInductance(coil(0, [1, 0, 0]), coil(far, [2, 0, 0]));
  expect(inLine / (-2 * side)).toBeCloseTo(1, 3);
  expect(Math.abs(mutualInductance(coil(0, [0, 0, 1]), coil(far, [0, 1, 0])))).toBeLessThan(1e-18);
});

test('coils that lie in each other are refused', () => {
  const [a] = pairs[0].coils;
  expect(() => coupled(a, a)).toThrow(/lie in each other/);
});

test('a wound coil has the inductance it was wound for, and thick wire resists less', () => {
  const [thin, thick] = [windCoil(1e-3, 0.8e-3), windCoil(1e-3, 1.4e-3)];
  for (const coil of [thin, thick]) {
    expect(coil.henries / 1e-3).toBeCloseTo(1, 9);
    expect(selfInductance(coil) / 1e-3).toBeCloseTo(1, 9);
  }
  expect(thick.dcrOhms).toBeLessThan(thin.dcrOhms);
  expect(thick.price).toBeGreaterThan(thin.price);
  // A millihenry of 1.4 mm wire weighs a few hundred grams and resists a quarter of an ohm.
  expect(thick.dcrOhms).toBeGreaterThan(0.15);
  expect(thick.dcrOhms).toBeLessThan(0.35);
  // Brooks' proportions resist least for their inductance and wire.
  const former = windOnFormer(1e-3, 1.4e-3, { innerMetres: 0.02, lengthMetres: 0.05 });
  expect(former.henries / 1e-3).toBeCloseTo(1, 6);
  expect(former.dcrOhms).toBeGreaterThan(thick.dcrOhms);
  const cored = windCoil(1e-3, 0.8e-3, 'ferrite');
  expect(cored.dcrOhms).toBeLessThan(thin.dcrOhms);
  expect(cored.saturationAmps).toBeGreaterThan(0.5);
  expect(() => windCoil(1e-9, 2.5e-3)).toThrow(/take a thinner/);
});

import fc from 'fast-check';
import { hallSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { gate } from '@/core/sheet/gate';
import { withDrivers } from '@/core/sheet/references';
import type { Sheet } from '@/core/sheet/schema';
import { mutualInductance } from '@/core/speaker/coils/mutual';
import type { CrossoverDesign } from '../crossover-design';
import { crossoverPicture } from '../picture';
import { speakerOf } from '../speaker-of';
import { coilPairs, couplingBetween, quietestTurn } from './couplings';
import { boardOf, coilInSpace, footprint, type BoardPart } from './layout';
import { boardPicture } from './picture';

const AT = '2026-11-27T08:00:00.000Z';
const solved = (sheet: Sheet) => withDrivers(sheet, demoDrivers()) as Sheet & CrossoverDesign;
const SHELF = solved(shelfSpeaker(AT));
const HALL = solved(hallSpeaker(AT));

/** Two coils side by side, close, both flat. */
const close = (design: Sheet & CrossoverDesign): Sheet & CrossoverDesign => {
  const { board, parts } = boardOf(design);
  const coils = parts.filter((p) => p.coil);
  const places = coils.map(({ stage, part, coil }, i) => ({
    stage,
    part,
    xMetres: 0.05 + i * 1.05 * coil!.outerMetres,
    yMetres: 0.05,
    lies: 'flat' as const,
    degrees: 0,
  }));
  return {
    ...design,
    crossover: { ...design.crossover, board: { ...board, coupled: true, parts: places } },
  };
};

test.each([
  ['shelf', SHELF],
  ['hall', HALL],
])('every part of the %s speaker lies on its board, apart from every other', (_, design) => {
  const { board, parts } = boardOf(design);
  expect(parts.map((p) => p.name).sort()).toEqual([...new Set(parts.map((p) => p.name))].sort());
  parts.forEach((p, i) => {
    const { width, height } = footprint(p);
    expect(p.xMetres - width / 2).toBeGreaterThan(0);
    expect(p.xMetres + width / 2).toBeLessThan(board.widthMetres);
    expect(p.yMetres - height / 2).toBeGreaterThan(0);
    expect(p.yMetres + height / 2).toBeLessThan(board.heightMetres);
    for (const o of parts.slice(i + 1)) {
      const other = footprint(o);
      const apart =
        Math.abs(p.xMetres - o.xMetres) > (width + other.width) / 2 ||
        Math.abs(p.yMetres - o.yMetres) > (height + other.height) / 2;
      expect(apart).toBe(true);
    }
  });
});

test('what two coils of a board share is what their windings, places and axes have it be', () => {
  const [a, b] = boardOf(close(SHELF)).parts.filter((p) => p.coil);
  const k = couplingBetween(a, b);
  const m = mutualInductance(coilInSpace(a), coilInSpace(b));
  const own = Math.sqrt(a.coil!.henries * b.coil!.henries);
  expect(k).toBeCloseTo(m / own, 3);
  // Side by side and flat, the flux of one goes back through the other.
  expect(k).toBeLessThan(0);
  // On its edge, pointing past the other, a coil shares nothing with one that lies flat.
  const across = { ...b, lies: 'edge' as const, degrees: 90, yMetres: a.yMetres };
  expect(
    Math.abs(couplingBetween({ ...a, xMetres: 0.1 }, { ...across, xMetres: 0.3 })),
  ).toBeLessThan(Math.abs(k) / 20);
});

test('coupling counts in what is solved once it is to, and not in the textbook', () => {
  const design = close(SHELF);
  gate({ ...design, ways: shelfSpeaker(AT).ways });
  const couplings = (d: CrossoverDesign, load?: 'nominal') =>
    speakerOf(d, load).network.filter((p) => p.kind === 'coupling').length;
  expect(couplings(design)).toBe(coilPairs(boardOf(design).parts).length);
  expect(couplings(design, 'nominal')).toBe(0);
  expect(couplings(SHELF)).toBe(0);
  const told = boardPicture(design);
  expect(told.problem).toBeNull();
  const { sumDb } = crossoverPicture(design).layers[0];
  const { sumDb: apart } = crossoverPicture(SHELF).layers[0];
  const most = (a: Float64Array, b: Float64Array) =>
    a.reduce((m, x, k) => Math.max(m, Math.abs(x - b[k])), 0);
  expect(most(sumDb, apart)).toBeGreaterThan(0.05);
  expect(most(told.coupledDb, told.apartDb)).toBeCloseTo(most(sumDb, apart), 1);
  for (const { db } of told.pairs) expect(Math.abs(db)).toBeGreaterThan(0);
});

test('a turned coil shares least as it is told to be turned', () => {
  const { parts } = boardOf(close(HALL));
  const coils = parts.filter((p) => p.coil);
  for (const coil of coils) {
    const turn = quietestTurn(coil, parts);
    expect(turn.shares).toBeLessThanOrEqual(turn.shared);
    const others = coils.filter((c) => c !== coil);
    const shares = (as: Pick<BoardPart, 'lies' | 'degrees'>) =>
      others.reduce((sum, o) => sum + Math.abs(couplingBetween({ ...coil, ...as }, o)), 0);
    expect(shares(turn)).toBeCloseTo(turn.shares, 12);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 179 }), (degrees) => {
        expect(shares({ lies: 'edge', degrees })).toBeGreaterThan(turn.shares * 0.9 - 1e-4);
      }),
      { numRuns: 12 },
    );
  }
  const told = boardPicture(close(HALL));
  expect(told.turns.length).toBeGreaterThan(0);
});

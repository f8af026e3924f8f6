import { newSheet } from '@/testing/open-sheet';
import type { Sheet, StagePart } from './schema';
import { spreadOfSheet } from './spread-sheet';
import { USUAL_DEVIATIONS } from './usual-deviations';

describe('a sheet whose capacitors were measured', () => {
  const pieces = [-0.05, -0.05, 0.05];
  const exact = { resistor: 0, inductor: 0, potentiometer: 0, opAmp: 0 };
  const deviations = {
    ...USUAL_DEVIATIONS,
    ...exact,
    shape: 'measured' as const,
    oneReel: true,
    measured: { capacitor: pieces },
  };
  const base = newSheet();
  const sheet = { ...base, parts: { ...base.parts, deviations } };
  /** The paths with something said of every capacitor. */
  const withCapacitors = (say: (part: StagePart) => Partial<StagePart>): Sheet['ways'] =>
    sheet.ways.map((way) => ({
      ...way,
      stages: way.stages.map((stage) => ({
        ...stage,
        parts: Object.fromEntries(
          Object.entries(stage.parts).map(([id, part]) => [
            id,
            id.startsWith('C') ? { ...part, ...say(part) } : part,
          ]),
        ),
      })),
    }));
  const spreadOf = (of = sheet) => {
    const spread = spreadOfSheet(of, { boards: 600, seed: 2 });
    spread.draw(600);
    return spread.result();
  };

  test('has boards as far off as the pieces, and as often', () => {
    // All capacitors of one reel move the edge as one: 1/(1 + 5 %) or 1/(1 - 5 %), but for their own share.
    const edge = spreadOf().readings[0]!;
    expect(edge.p95 / edge.p5).toBeGreaterThan(1.06);
    expect(edge.p95 / edge.p5).toBeLessThan(1.05 / 0.95 + 1e-3);
    // Two in three are small: most edges lie high.
    expect(edge.p50).toBeGreaterThan((edge.p5 + edge.p95) / 2);
  });

  test('but a part of which a tolerance is told goes by that', () => {
    const told = {
      ...sheet,
      ways: withCapacitors(() => ({ tolerance: 0 })),
    };
    const edge = spreadOf(told).readings[0]!;
    expect(edge.sd / edge.mean).toBeLessThan(1e-6);
  });

  test('and two capacitors in one place keep the mean, and lie closer', () => {
    const paired = {
      ...sheet,
      parts: {
        ...sheet.parts,
        deviations: { ...deviations, measured: { capacitor: [0.02, 0.04] } },
      },
      ways: withCapacitors(({ value }) => ({
        made: { how: 'parallel', of: [value! / 2, value! / 2] },
      })),
    };
    const [one, two] = [{ ...paired, ways: sheet.ways }, paired].map(
      (of) => spreadOf(of).readings[0]!,
    );
    expect(two.mean / one.mean).toBeCloseTo(1, 2);
    expect(two.sd / one.sd).toBeCloseTo(Math.SQRT1_2, 1);
  });
});

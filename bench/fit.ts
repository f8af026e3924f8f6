import { AcAnalysis } from '@/core/analysis/ac/ac';
import { askSchema, mainHz, type Ask } from '@/core/design/ask';
import { designCircuit } from '@/core/design/circuit';
import { designAsk } from '@/core/design/design';
import { circuitOf, fitCircuit, fitted } from '@/core/fit/fit-circuit';
import { spaced } from '@/core/response/landmarks';
import { levelsDb } from '@/core/response/response';
import { line, report, summary } from './measure';

/** Thirty asks of every kind that filters are made for, low to high, first order to tenth. */
const ASKS: readonly Partial<Ask>[] = [
  { kind: 'low-pass', order: 1, edgeHz: 159 },
  { kind: 'low-pass', order: 2, edgeHz: 1000, topology: 'unity-low-pass' },
  { kind: 'low-pass', order: 2, edgeHz: 87, topology: 'multiple-feedback-low-pass', gainDb: 12 },
  { kind: 'low-pass', order: 3, edgeHz: 3100, topology: 'unity-low-pass' },
  { kind: 'low-pass', order: 4, edgeHz: 3400, gainDb: 0, topology: 'unity-low-pass' },
  { kind: 'low-pass', order: 4, edgeHz: 12_000, shape: 'linkwitz-riley' },
  { kind: 'low-pass', order: 5, edgeHz: 440, shape: 'bessel' },
  { kind: 'low-pass', order: 6, edgeHz: 700, topology: 'unity-low-pass' },
  { kind: 'low-pass', order: 6, edgeHz: 5000, shape: 'chebyshev', rippleDb: 0.5 },
  { kind: 'low-pass', order: 6, edgeHz: 250, topology: 'state-variable-low-pass' },
  { kind: 'low-pass', order: 8, edgeHz: 1600 },
  { kind: 'low-pass', order: 10, edgeHz: 20_000, shape: 'bessel' },
  { kind: 'low-pass', order: 3, edgeHz: 8000, topology: 'lc-ladder-low-pass-3' },
  { kind: 'low-pass', order: 5, edgeHz: 15_000, topology: 'lc-ladder-low-pass-5' },
  {
    kind: 'low-pass',
    shape: 'elliptic',
    limits: { passHz: 3400, passDb: 0.5, stopHz: 6000, stopDb: 45 },
  },
  { kind: 'high-pass', order: 1, edgeHz: 16 },
  { kind: 'high-pass', order: 2, edgeHz: 18, topology: 'unity-high-pass' },
  { kind: 'high-pass', order: 3, edgeHz: 120, shape: 'bessel' },
  { kind: 'high-pass', order: 4, edgeHz: 2200, shape: 'linkwitz-riley' },
  { kind: 'high-pass', order: 6, edgeHz: 75, shape: 'chebyshev', rippleDb: 1 },
  { kind: 'band-pass', order: 1, centreHz: 1000, q: 4 },
  { kind: 'band-pass', order: 2, centreHz: 800, q: 3 },
  { kind: 'band-pass', order: 3, lowerHz: 300, upperHz: 3400 },
  { kind: 'band-stop', order: 2, lowerHz: 40, upperHz: 62 },
  { kind: 'wide-band', order: 2, lowerHz: 60, upperHz: 9000 },
  { kind: 'notch', centreHz: 50, q: 4 },
  { kind: 'peak', centreHz: 2500, q: 1.5, gainDb: 6 },
  { kind: 'low-shelf', order: 1, edgeHz: 200, gainDb: 6 },
  { kind: 'high-shelf', order: 1, edgeHz: 5000, gainDb: -4 },
  { kind: 'tilt', edgeHz: 900, gainDb: 4 },
];

const POINTS = 1500;
const BEYOND = 30;

/** Rounding each value by itself beside fitting all of them, E24 and E6, errors on a grid of its own. */
export function benchFit(): void {
  const ratios: number[] = [];
  const seconds: number[] = [];
  let worse = 0;
  for (const given of ASKS) {
    const ask = askSchema.parse(given);
    const { circuit } = designCircuit(designAsk(ask), 'ideal');
    const hz = mainHz(ask);
    const span = { fromHz: hz / BEYOND, toHz: hz * BEYOND };
    const supply = { resistors: 'E24', capacitors: 'E6', inductors: 'E12' } as const;
    const from = performance.now();
    const found = fitted(fitCircuit({ circuit, ideal: circuit, probe: 'out', supply, span }));
    seconds.push((performance.now() - from) / 1000);
    const grid = spaced(span.fromHz, span.toHz, POINTS);
    const exact = levelsDb(new AcAnalysis(circuit).voltage('out', grid));
    const top = Math.max(...exact);
    const [nearest, fit] = [found.nearest, found.fitted].map((choice) =>
      levelsDb(new AcAnalysis(circuitOf(circuit, choice)).voltage('out', grid)).reduce(
        (worst, db, k) => (exact[k] > top - 40 ? Math.max(worst, Math.abs(db - exact[k])) : worst),
        0,
      ),
    );
    ratios.push(fit / nearest);
    if (fit > nearest * 1.001) worse++;
  }
  report(`Fit over ${ASKS.length} asks: error over that of nearest rounding`, ratios, '');
  line('  asks on which it is worse', worse, '');
  report('  time of an ask', seconds, 's');
  line('  longest', summary(seconds).most, 's');
}

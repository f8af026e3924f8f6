import { spawnSync } from 'node:child_process';
import { AcAnalysis } from '@/core/analysis/ac/ac';
import { levelBand } from '@/core/analysis/boards/boards';
import { seededRandom } from '@/core/random';
import { slotMatrix } from '@/core/analysis/linear/matrix';
import { DenseComplexLu } from './baseline';
import { cascade, logSpaced } from './circuits';
import { report, summary, time } from './measure';

const BOARDS = 64;
const POINTS = 400;

/** 64 boards x 400 frequencies of six second-order stages with one-pole op-amps, 26 unknowns. */
export function benchAc(): void {
  const circuit = cascade(6);
  const frequenciesHz = logSpaced(20, 20_000, POINTS);
  const analysis = new AcAnalysis(circuit);
  const nominal = Float64Array.from(analysis.values);
  const trace = { re: new Float64Array(POINTS), im: new Float64Array(POINTS) };
  const spreads = Float64Array.from({ length: BOARDS * nominal.length }, (_, i) =>
    Math.sin(i * 7.1),
  );
  const boards = (): void => {
    for (let board = 0, at = 0; board < BOARDS; board++) {
      for (let i = 0; i < nominal.length; i++)
        analysis.values[i] = nominal[i] * (1 + 0.05 * spreads[at++]);
      analysis.update();
      analysis.voltage('out', frequenciesHz, trace);
    }
  };
  const planned = time(15, boards);

  const matrix = slotMatrix(analysis.system);
  const n = matrix.size;
  const g = new Float64Array(n * n);
  const c = new Float64Array(n * n);
  matrix.rows.forEach((row, slot) => {
    g[row * n + matrix.columns[slot]] = matrix.g[slot];
    c[row * n + matrix.columns[slot]] = matrix.c[slot];
  });
  const dense = new DenseComplexLu(n);
  const source = analysis.system.sources[0].row;
  const x = { re: new Float64Array(n), im: new Float64Array(n) };
  const baseline = time(5, () => {
    for (const hz of frequenciesHz) {
      x.re.fill(0);
      x.im.fill(0);
      x.re[source] = 1;
      dense.solve(g, c, 2 * Math.PI * hz, x.re, x.im);
    }
  });
  const perPlanned = planned.map((t) => t / (BOARDS * POINTS));
  const perDense = baseline.map((t) => t / POINTS);
  report(
    `AC, ${n} unknowns, ${BOARDS} boards x ${POINTS}: planned, per solve`,
    perPlanned,
    'us',
    1e6,
  );
  report('  dense complex LU, per solve', perDense, 'us', 1e6);
  console.log(
    `  ratio of medians                                         ${(summary(perDense).median / summary(perPlanned).median).toFixed(1).padStart(9)} x`,
  );
  // A tenth of a second, as the other takes whole ones: a processor that has waited needs a while.
  besideLapack(() => summary(time(60, boards)).median / (BOARDS * POINTS));
  report(
    '  one circuit from nothing: check, compile, plan, 400 points',
    time(15, () => void new AcAnalysis(circuit).solve({ frequenciesHz, probes: ['out'] })),
    'ms',
    1e3,
  );
}

/** 1,000 boards of it, and the band they fill. */
export function benchSpread(): void {
  const analysis = new AcAnalysis(cascade(6));
  const frequenciesHz = logSpaced(20, 20_000, POINTS);
  const boards = 1000;
  const random = seededRandom(1);
  const spreads = Float64Array.from({ length: boards * analysis.values.length }, () => random());
  const draw = (board: number, values: Float64Array): void => {
    const own = board * values.length;
    for (let i = 0; i < values.length; i++) values[i] *= 0.95 + 0.1 * spreads[own + i];
  };
  const request = { probe: 'out', frequenciesHz, boards, draw, parts: [0.05, 0.5, 0.95] };
  report(
    'Spread: 1,000 boards x 400 frequencies x 26 unknowns, with percentiles',
    time(7, () => void levelBand(analysis, request)),
    's',
  );
}

const ROUNDS = 7;

/**
 * The same number of unknowns solved by LAPACK, where Python with numpy is at hand: in turns with the
 * planned solver, so that a machine whose speed drifts treats both alike.
 *
 * @param planned seconds a solve
 */
function besideLapack(planned: () => number): void {
  const names = [process.env.PYTHON, '/usr/bin/python3', 'python3'].filter((p) => p !== undefined);
  const python = names.find((name) => spawnSync(name, ['-c', 'import numpy']).status === 0);
  if (python === undefined) {
    console.log('  (no Python with numpy here: the LAPACK figure is left out)');
    return;
  }
  const dense: number[] = [];
  const ratios: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const own = planned();
    const { stdout } = spawnSync(python, ['bench/lapack.py'], { encoding: 'utf8' });
    dense.push(Number(stdout) * 1e-6);
    ratios.push(dense[round] / ((own + planned()) / 2));
  }
  report('  dense complex LAPACK, batched, per solve', dense, 'us', 1e6);
  report('  ratio, in turns', ratios, 'x');
}

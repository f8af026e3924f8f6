import { AcAnalysis } from '@/core/analysis/ac/ac';
import type { ComplexTrace } from '@/core/analysis/ac/complex';
import { isCrossover } from '@/core/crossover/crossover-design';
import { nearestMetres, solveCrossover, summed } from '@/core/crossover/solve';
import { outNet } from '@/core/sheet/nets';
import { placedWays } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { SPEED_OF_SOUND } from '@/core/speaker/air';
import { impulseOfResponse } from '@/core/speaker/inverse-transform';
import type { Heard } from './heard';

/** Of an impulse response: 85 ms at 48 kHz, within which the lowest resonances have died away. */
const TAPS = 4096;
/** So many samples can be gone back. */
const BACK = 8192;
const KEPT = TAPS + BACK;
/** Where the window begins before sound first arrives, seconds. */
const BEFORE = 5e-4;
/** From this part of half the rate on it is faded out. */
const FADES_FROM = 0.7;

/**
 * The ways of a crossover as they meet at the listener, or the channels of a bank as they are mixed:
 * linear, so an impulse response is all of it. It is at its highest level as loud as its source.
 */
export class HeardSum implements Heard {
  readonly times = 1;
  readonly late = 0;
  readonly lost = 0;
  readonly span = undefined;
  private readonly taps: Float64Array;
  /** What was played, twice over, so that the last of it always stands in one piece. */
  private readonly played = new Float64Array(2 * KEPT);
  private at = 0;

  /** @throws ReedError where it cannot be solved, as of a driver that is gone */
  constructor(
    private readonly sheet: Sheet,
    rate: number,
  ) {
    this.taps = impulseOf(sheet, rate);
  }

  fresh(sheet: Sheet, _way: number, rate: number): HeardSum {
    return new HeardSum(sheet, rate);
  }

  take(sheet: Sheet): (() => void) | undefined {
    return designKey(sheet) === designKey(this.sheet) ? () => undefined : undefined;
  }

  mark(): () => void {
    // What was played before still stands there.
    const { at } = this;
    return () => void (this.at = at);
  }

  open(): void {
    // No note moves anything here.
  }

  play(input: Float64Array, output: Float64Array): void {
    const { taps, played } = this;
    for (let k = 0; k < output.length; k++) {
      this.at = (this.at + KEPT - 1) % KEPT;
      played[this.at] = played[this.at + KEPT] = input[k];
      // Four sums side by side: none waits for the last product of another.
      let [a, b, c, d] = [0, 0, 0, 0];
      for (let n = 0, i = this.at; n < TAPS; n += 4, i += 4) {
        a += taps[n] * played[i];
        b += taps[n + 1] * played[i + 1];
        c += taps[n + 2] * played[i + 2];
        d += taps[n + 3] * played[i + 3];
      }
      output[k] = a + b + (c + d);
    }
  }
}

const designKey = ({ parts, source, ways, controls, crossover, bank }: Sheet): string =>
  JSON.stringify([parts, source, ways, controls, crossover, bank]);

/** What an impulse at the source makes, sample by sample. */
export function impulseOf(sheet: Sheet, rate: number): Float64Array {
  const hz = Float64Array.from({ length: TAPS / 2 }, (_, k) => ((k + 1) * rate) / TAPS);
  const { response, seconds } = isCrossover(sheet)
    ? atListener(sheet, hz)
    : { response: mixed(sheet, hz), seconds: 0 };
  const most = hz.reduce((m, _, k) => Math.max(m, Math.hypot(response.re[k], response.im[k])), 0);
  return impulseOfResponse(response, hz, {
    // Begun shortly before the first sound arrives.
    afterSeconds: seconds - BEFORE,
    keep: (f) => faded(f / (rate / 2)) / (most || 1),
  });
}

function atListener(
  sheet: Parameters<typeof solveCrossover>[0] & Sheet,
  hz: Float64Array,
): { response: ComplexTrace; seconds: number } {
  const speaker = solveCrossover(sheet, 'true', `${sheet.id} heard`);
  const { ways } = speaker.sound(speaker.electrical(hz));
  return {
    response: summed(
      ways,
      ways.map(() => 1),
    ),
    seconds: nearestMetres(speaker) / SPEED_OF_SOUND,
  };
}

function mixed(sheet: Sheet, hz: Float64Array): ComplexTrace {
  const analysis = new AcAnalysis(placedWays(sheet, [...sheet.ways.keys()], 'built').circuit);
  return summed(
    sheet.ways.map((_, w) => analysis.voltage(outNet(sheet, w), hz)),
    sheet.ways.map(({ to }) => (to.is === 'mix' ? to.gain : 0)),
  );
}

const faded = (part: number): number =>
  part < FADES_FROM ? 1 : Math.cos((Math.PI / 2) * ((part - FADES_FROM) / (1 - FADES_FROM))) ** 2;

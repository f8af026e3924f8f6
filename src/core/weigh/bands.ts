import { bandOf, centreOf, mainHz, type Ask } from '@/core/design/ask';

/** Frequencies at which a candidate is judged. */
export interface JudgedBands {
  /** Over the pass band, log-spaced; empty where there is none to speak of. */
  pass: Float64Array;
  /** Where the stop band must have been reached. */
  stop: Float64Array;
  /** Everything that is drawn. */
  all: Float64Array;
}

const spaced = (from: number, to: number, count: number): number[] =>
  Array.from({ length: count }, (_, k) => from * (to / from) ** (k / (count - 1)));

const POINTS = 24;

/** Pass and stop bands of an ask: its limits, or its edges and one octave beyond them. */
export function judgedBands(ask: Ask): JudgedBands {
  const hz = mainHz(ask);
  const all = Float64Array.from(spaced(hz / 50, hz * 50, 120));
  const bands = (pass: number[], stop: number[]): JudgedBands => ({
    pass: Float64Array.from(pass),
    stop: Float64Array.from(stop),
    all,
  });
  const { limits } = ask;
  if (limits && 'passHz' in limits) {
    const low = ask.kind === 'low-pass';
    return bands(
      low
        ? spaced(limits.passHz / 50, limits.passHz, POINTS)
        : spaced(limits.passHz, limits.passHz * 50, POINTS),
      low
        ? spaced(limits.stopHz, limits.stopHz * 10, 12)
        : spaced(limits.stopHz / 10, limits.stopHz, 12),
    );
  }
  switch (ask.kind) {
    case 'low-pass':
      return bands(spaced(hz / 50, hz, POINTS), [hz * 2]);
    case 'high-pass':
      return bands(spaced(hz, hz * 50, POINTS), [hz / 2]);
    case 'band-pass':
    case 'wide-band': {
      const band =
        limits && 'passLowerHz' in limits
          ? { lowerHz: limits.passLowerHz, upperHz: limits.passUpperHz }
          : bandOf(ask);
      const stop =
        limits && 'stopLowerHz' in limits
          ? [limits.stopLowerHz, limits.stopUpperHz]
          : [band.lowerHz / 2, band.upperHz * 2];
      return bands(spaced(band.lowerHz, band.upperHz, POINTS), stop);
    }
    case 'band-stop': {
      const band =
        limits && 'passLowerHz' in limits
          ? { lowerHz: limits.passLowerHz, upperHz: limits.passUpperHz }
          : bandOf(ask);
      const stop =
        limits && 'stopLowerHz' in limits
          ? [limits.stopLowerHz, limits.stopUpperHz]
          : [Math.sqrt(band.lowerHz * band.upperHz) * 1.0001];
      return bands(
        [
          ...spaced(band.lowerHz / 50, band.lowerHz, 12),
          ...spaced(band.upperHz, band.upperHz * 50, 12),
        ],
        stop,
      );
    }
    case 'notch':
    case 'peak': {
      const { centreHz, q } = centreOf(ask);
      const away = 1 + 4 / q;
      return bands(
        [
          ...spaced(centreHz / 50, centreHz / away, 12),
          ...spaced(centreHz * away, centreHz * 50, 12),
        ],
        [centreHz],
      );
    }
    default:
      return bands(spaced(hz / 50, hz * 50, POINTS), []);
  }
}

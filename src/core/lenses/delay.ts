import { AcAnalysis } from '@/core/analysis/ac/ac';
import { polesAndZeros, type RootFigures } from '@/core/analysis/poles/poles';
import { Adjoint } from '@/core/analysis/sensitivity/adjoint';
import type { Circuit } from '@/core/circuit/schema';
import type { Curve } from '@/core/response/extremes';
import { explored, type Landmark } from '@/core/response/landmarks';
import { sampleCurve } from '@/core/response/sample-curve';
import { pathLandmarks } from '@/core/sheet/landmarks';
import type { Sheet } from '@/core/sheet/schema';
import type { CurvesOfBoards } from './boards';
import { overLayers, withoutPause, type OverLayers, type Pause } from './layers';

export interface DelayTrace {
  frequenciesHz: Float64Array;
  seconds: Float64Array;
}

/** Group delay of every layer over the picture's span, exact at each point, with a point on every peak. */
export function delayLens(
  sheet: Sheet,
  pause: Pause = withoutPause,
): Promise<OverLayers<DelayTrace>> {
  const { fromHz, toHz } = sheet.view;
  return overLayers(sheet, pause, (circuit) => {
    const adjoint = new Adjoint(new AcAnalysis(circuit), 'out');
    const { landmarks, zerosOnAxisHz } = rootsOf(circuit);
    const delay: Curve = (hz) => {
      const { groupDelaySeconds } = adjoint.slopes(hz);
      // At a zero on the axis nothing is left that could be delayed.
      return groupDelaySeconds.map((seconds, k) =>
        zerosOnAxisHz.some((zero) => Math.abs(hz[k] / zero - 1) < BESIDE_A_ZERO) ? NaN : seconds,
      );
    };
    const { frequenciesHz, values } = sampleCurve(delay, { fromHz, toHz }, { landmarks });
    return { frequenciesHz, seconds: values };
  });
}

/** Delay turns more sharply than a level does. */
const PER_DECADE = 40;

/** Group delay of boards, closer where the curve bends. */
export const delaysOfBoards: CurvesOfBoards = (sheet) => {
  const hz = explored(sheet.view, pathLandmarks(sheet.ways[0], 'built'), PER_DECADE);
  return {
    places: { delay: hz },
    read: ({ analysis }) => ({ delay: new Adjoint(analysis, 'out').slopes(hz).groupDelaySeconds }),
  };
};

const BESIDE_A_ZERO = 1e-4;
/** A zero this sharp lies on the axis but for rounding. */
const ON_AXIS_Q = 1e7;

/** The circuit's own poles and zeros, which is where a delay has its peaks. */
function rootsOf(circuit: Circuit): { landmarks: Landmark[]; zerosOnAxisHz: number[] } {
  const { poleFigures, zeroFigures } = polesAndZeros(circuit, 'out');
  const onAxis = ({ q }: RootFigures) => q !== null && Math.abs(q) > ON_AXIS_Q;
  return {
    landmarks: [...poleFigures, ...zeroFigures.filter((z) => !onAxis(z))].map(({ f0Hz, q }) => ({
      hz: f0Hz,
      q: q === null ? 0.5 : Math.abs(q),
    })),
    zerosOnAxisHz: zeroFigures.filter(onAxis).map((z) => z.f0Hz),
  };
}

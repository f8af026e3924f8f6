import type { DriverEntry } from '@/core/library/driver';
import { over, size, times, type Complex } from '@/core/numeric/complex';
import type { UnitFigures } from '@/core/speaker/figures';
import { evenly } from '@/core/speaker/tune/measure';
import { unitAt } from '@/core/speaker/unit-response';

/** A hump or a dip of a made-up driver: where, how far up or down, and how sharp. */
interface Bend {
  hz: number;
  db: number;
  q: number;
}

interface MadeUp {
  id: string;
  name: string;
  note: string;
  figures: UnitFigures;
  /** What a real cone or dome does besides: humps, dips, and an end to its top. */
  bends: readonly Bend[];
  topHz: number;
  fromHz: number;
}

const MADE_UP: readonly MadeUp[] = [
  {
    id: 'demo-bass-130',
    name: 'Bass unit, 130 mm',
    note: 'Made up. Paper cone in 14 litres, closed; a hump below 1 kHz and breakup above 4 kHz.',
    figures: {
      fsHz: 41,
      qms: 3.6,
      qes: 0.47,
      vasLitres: 22,
      reOhms: 5.7,
      leHenries: 0.62e-3,
      sdSquareCentimetres: 133,
      mounting: { kind: 'closed', litres: 14 },
      lossyInductance: { henries: 0.3e-3, ohms: 9 },
      xmaxMillimetres: 4.5,
      powerWatts: 60,
    },
    bends: [
      { hz: 830, db: 4.1, q: 1.3 },
      { hz: 4700, db: 6.5, q: 4 },
      { hz: 6900, db: 4, q: 5 },
    ],
    topHz: 5200,
    fromHz: 20,
  },
  {
    id: 'demo-dome-25',
    name: 'Soft dome, 25 mm',
    note: 'Made up. A shallow dip at 6 kHz and a little lift at the very top.',
    figures: {
      fsHz: 870,
      qms: 2.2,
      qes: 1.3,
      vasLitres: 0.02,
      reOhms: 4.6,
      leHenries: 0.04e-3,
      sdSquareCentimetres: 7.1,
      mounting: { kind: 'open' },
      xmaxMillimetres: 0.4,
      powerWatts: 20,
    },
    bends: [
      { hz: 2100, db: 1.2, q: 1.5 },
      { hz: 6200, db: -1.4, q: 2 },
      { hz: 17_000, db: 2, q: 3 },
    ],
    topHz: 26_000,
    fromHz: 100,
  },
  {
    id: 'demo-bass-250',
    name: 'Bass unit, 250 mm',
    note: 'Made up. For the hall, in 60 litres, vented at 36 Hz.',
    figures: {
      fsHz: 31,
      qms: 5.4,
      qes: 0.38,
      vasLitres: 92,
      reOhms: 5.4,
      leHenries: 0.9e-3,
      sdSquareCentimetres: 330,
      mounting: { kind: 'vented', litres: 60, tuningHz: 36, leakQ: 8 },
      lossyInductance: { henries: 0.7e-3, ohms: 7 },
      xmaxMillimetres: 7,
      powerWatts: 150,
    },
    bends: [
      { hz: 1250, db: 3.5, q: 1.8 },
      { hz: 2100, db: 6, q: 4 },
    ],
    topHz: 2400,
    fromHz: 20,
  },
  {
    id: 'demo-middle-100',
    name: 'Middle unit, 100 mm',
    note: 'Made up. A small cone in 4 litres, closed.',
    figures: {
      fsHz: 88,
      qms: 4,
      qes: 0.55,
      vasLitres: 3.4,
      reOhms: 5.9,
      leHenries: 0.28e-3,
      sdSquareCentimetres: 55,
      mounting: { kind: 'closed', litres: 4 },
      xmaxMillimetres: 2,
      powerWatts: 50,
    },
    bends: [
      { hz: 1500, db: 1.5, q: 1.2 },
      { hz: 8500, db: 7, q: 4 },
    ],
    topHz: 9500,
    fromHz: 50,
  },
  {
    id: 'demo-dome-19',
    name: 'Small dome, 19 mm',
    note: 'Made up. For the hall: light, smooth, not to be driven low.',
    figures: {
      fsHz: 1250,
      qms: 2.8,
      qes: 1.1,
      vasLitres: 0.011,
      reOhms: 5.1,
      leHenries: 0.03e-3,
      sdSquareCentimetres: 4.5,
      mounting: { kind: 'open' },
      xmaxMillimetres: 0.3,
      powerWatts: 15,
    },
    bends: [
      { hz: 3600, db: 1.3, q: 1.4 },
      { hz: 11_000, db: -1.2, q: 2 },
    ],
    topHz: 30_000,
    fromHz: 200,
  },
];

const ROWS = 180;

/** The drivers of the demo: their figures, and tables as they would have been measured of them. */
export function demoDrivers(): DriverEntry[] {
  return MADE_UP.map(({ id, name, note, figures, ...made }) => {
    const hz = Array.from(evenly(made.fromHz, 22_000, ROWS), (f) => Number(f.toPrecision(6)));
    const points = hz.map((f) => soundAt(figures, made, f));
    return {
      format: 'jaunty-reed/driver',
      version: 1,
      id,
      name,
      note,
      model: {
        ...figures,
        directivity: 'piston',
        measured: {
          level: {
            frequenciesHz: hz,
            levelDb: points.map((p) => round(20 * Math.log10((size(p) * 2.83) / 20e-6), 3)),
            phaseDegrees: points.map((p) => round((Math.atan2(p.im, p.re) * 180) / Math.PI, 3)),
            atVolts: 2.83,
            atMetres: 1,
            delaySeconds: 0,
            shiftDb: 0,
            lowSlope: 12,
            highSlope: -24,
          },
        },
      },
    };
  });
}

const round = (x: number, digits: number) => Number(x.toFixed(digits));

/** The sound of the ideal piston, bent as a real one bends it: (1 + g j/Q x)/(1 + j/Q x) a hump. */
function soundAt(
  figures: UnitFigures,
  { bends, topHz }: Pick<MadeUp, 'bends' | 'topHz'>,
  hz: number,
): Complex {
  let sound = unitAt(figures, hz).pascals;
  for (const bend of bends) {
    const x = hz / bend.hz;
    const root = 10 ** (bend.db / 40);
    // A peaking pair: numerator and denominator differ in their damping.
    sound = times(
      sound,
      over({ re: 1 - x * x, im: (x * root) / bend.q }, { re: 1 - x * x, im: x / (root * bend.q) }),
    );
  }
  const y = hz / topHz;
  // The top ends at second order.
  return times(sound, over({ re: 1, im: 0 }, { re: 1 - y * y, im: y / 0.8 }));
}

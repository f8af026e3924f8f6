import {
  allPassFor,
  levelTrim,
  LINE_OHMS,
  USUAL_GAIN_DB,
  type ActiveStage,
} from '@/core/crossover/active';
import { makeCrossover, type NewCrossover } from '@/core/crossover/make';
import type { Sheet } from '@/core/sheet/schema';

const AMPLIFIER = { name: 'Hall amplifier', ohms: 0.05, volts: 2.83 };

/** For the reading room: two drivers on a shelf, the bass with a hump that a trap takes down. */
const shelf = (at: string): NewCrossover => ({
  id: 'demo-shelf-speaker',
  demo: 'shelf-speaker',
  title: 'Shelf speaker for the reading room',
  at,
  source: AMPLIFIER,
  ways: [
    {
      id: 'low',
      name: 'low',
      driver: { id: 'demo-bass-130', name: 'Bass unit, 130 mm' },
      place: { xMetres: 0, yMetres: -0.08, zMetres: -0.022 },
      nominalOhms: 6,
      wireMetres: 1.25e-3,
      slots: [{ is: 'trap-across', hz: 830, downDb: 4.1, octaves: 1.1, sourceOhms: 4 }],
    },
    {
      id: 'high',
      name: 'high',
      driver: { id: 'demo-dome-25', name: 'Soft dome, 25 mm' },
      place: { xMetres: 0, yMetres: 0.06, zMetres: 0 },
      nominalOhms: 5,
      wireMetres: 0.8e-3,
      slots: [{ is: 'pad', downDb: 3.4, ohms: 5, adjustable: false }],
    },
  ],
  crossover: {
    splitsHz: [2500],
    alignment: 'linkwitz-riley',
    order: 2,
    fromHz: 200,
    toHz: 15_000,
    withinDb: 1,
    leastOhms: 4,
    loudVolts: 20,
    listen: { xMetres: 0, yMetres: 0, zMetres: 2 },
  },
});

export const shelfSpeaker = (at: string): Sheet => makeCrossover(shelf(at));

/** For the hall: three drivers, each in its own part of the band. */
const hall = (at: string): NewCrossover => ({
  id: 'demo-hall-speaker',
  demo: 'hall-speaker',
  title: 'Hall speaker, three ways',
  at,
  source: AMPLIFIER,
  ways: [
    {
      id: 'low',
      name: 'low',
      driver: { id: 'demo-bass-250', name: 'Bass unit, 250 mm' },
      place: { xMetres: 0, yMetres: -0.28, zMetres: -0.04 },
      nominalOhms: 6,
      wireMetres: 1.4e-3,
      slots: [{ is: 'flatten-coil', reOhms: 5.4, leHenries: 1.2e-3 }],
    },
    {
      id: 'middle',
      name: 'middle',
      driver: { id: 'demo-middle-100', name: 'Middle unit, 100 mm' },
      place: { xMetres: 0, yMetres: 0.02, zMetres: -0.012 },
      nominalOhms: 6,
      wireMetres: 1e-3,
    },
    {
      id: 'high',
      name: 'high',
      driver: { id: 'demo-dome-19', name: 'Small dome, 19 mm' },
      place: { xMetres: 0, yMetres: 0.14, zMetres: 0 },
      nominalOhms: 5,
      wireMetres: 0.8e-3,
      slots: [{ is: 'pad', downDb: 3, ohms: 5, adjustable: false }],
    },
  ],
  crossover: {
    splitsHz: [450, 3500],
    alignment: 'linkwitz-riley',
    order: 2,
    fromHz: 100,
    toHz: 15_000,
    withinDb: 1.5,
    leastOhms: 4,
    loudVolts: 28,
    listen: { xMetres: 0, yMetres: 0, zMetres: 3 },
  },
});

export const hallSpeaker = (at: string): Sheet => makeCrossover(hall(at));

const LINE_VOLTS = 10 ** (-USUAL_GAIN_DB / 20);
const OWN = { gainDb: USUAL_GAIN_DB, ohms: 0.05 };

/** The same crossover with op-amps and an amplifier for every way. */
const active = (
  { id, demo, title, source, crossover, ways, ...rest }: NewCrossover,
  behind: readonly (readonly ActiveStage[])[],
): Sheet =>
  makeCrossover({
    ...rest,
    id: `${id}-active`,
    demo: `${demo}-active`,
    title: `${title}, active`,
    source: { name: 'Line', ohms: LINE_OHMS, volts: source.volts * LINE_VOLTS },
    crossover: {
      ...crossover,
      order: 4,
      loudVolts: crossover.loudVolts * LINE_VOLTS,
    },
    ways: ways.map(({ slots: _, wireMetres: __, ...way }, i) => ({
      ...way,
      amplifier: OWN,
      active: behind[i],
    })),
  });

/** The hump of the bass is taken down by a dip; the dome waits for the deeper cone. */
export const activeShelfSpeaker = (at: string): Sheet =>
  active(shelf(at), [
    [{ topology: 'resonator-dip', target: { f0Hz: 830, q: 1.3, boost: 10 ** (-4.1 / 20) } }],
    [allPassFor(0.022), levelTrim(3.4)],
  ]);

export const activeHallSpeaker = (at: string): Sheet =>
  active(hall(at), [[], [allPassFor(0.028), levelTrim(1)], [allPassFor(0.012), levelTrim(3)]]);

import { makeCrossover } from '@/core/crossover/make';
import type { Sheet } from '@/core/sheet/schema';

const AMPLIFIER = { name: 'Hall amplifier', ohms: 0.05, volts: 2.83 };

/** For the reading room: two drivers on a shelf, the bass with a hump that a trap takes down. */
export const shelfSpeaker = (at: string): Sheet =>
  makeCrossover({
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

/** For the hall: three drivers, each in its own part of the band. */
export const hallSpeaker = (at: string): Sheet =>
  makeCrossover({
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

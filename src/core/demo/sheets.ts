import { activeHallSpeaker, activeShelfSpeaker, hallSpeaker, shelfSpeaker } from './crossovers';
import { keyboardVoice, nineVoltDrone, pluckedGate, treadlePedal } from './voices';
import { makeBank } from '@/core/bank/make';
import { fitted } from '@/core/fit/fit-circuit';
import { HALF_POWER_DB } from '@/core/response/decibels';
import { fitWay } from '@/core/sheet/fit-way';
import { makeSheet } from '@/core/sheet/make';
import type { Sheet } from '@/core/sheet/schema';

/** The date that `made.json` bears, for which its reader puts the present. */
export const MADE_AT = '2000-01-01T00:00:00.000Z';

/**
 * The village hall and its makers: made-up places, made-up gear. Each sheet is designed by the same
 * code a user's own sheets are. Their ids are fixed, so restoring finds them again.
 */
export function demoSheets(at: string): Sheet[] {
  const designed = roundedDemo(at).map((sheet) => ({
    ...sheet,
    ways: sheet.ways.map((_, way) => fitted(fitWay(sheet, { way })).fitted),
  }));
  return [
    ...designed,
    ...[
      keyboardVoice,
      pluckedGate,
      treadlePedal,
      nineVoltDrone,
      shelfSpeaker,
      activeShelfSpeaker,
      hallSpeaker,
      activeHallSpeaker,
    ].map((make) => make(at)),
  ];
}

/** The same with every value rounded by itself. */
function roundedDemo(at: string): Sheet[] {
  return [
    rumbleFilter(at),
    speechLowPass(at),
    trimmedRc(at),
    humNotch(at),
    steepLowPass(at),
    eightBands(at),
  ];
}

/** Footsteps on the hall's floor reach the record deck; music starts at about 30 Hz. */
function rumbleFilter(at: string): Sheet {
  const sheet = makeSheet({
    id: 'demo-rumble',
    demo: 'rumble',
    title: 'Rumble filter for the record deck',
    at,
    ask: {
      kind: 'high-pass',
      shape: 'butterworth',
      order: 2,
      edgeHz: 18,
      edge: 'half-power',
      gainDb: 0,
      topology: 'unity-high-pass',
    },
    source: { name: 'Deck preamp', ohms: 220, volts: 0.3 },
    load: { name: 'Mixer line in', ohms: 22_000, farads: 150e-12 },
    readings: [
      {
        id: 'r1',
        measure: {
          measure: 'edge',
          downDb: HALF_POWER_DB,
          side: 'lower',
          reference: { from: 'plateau' },
        },
        wanted: { is: 'near', value: 18, tolerance: 0.05, relative: true },
      },
      {
        id: 'r2',
        name: 'Footsteps, 6 Hz',
        measure: { measure: 'level', atHz: 6 },
        wanted: { is: 'at-most', value: -18 },
      },
      {
        id: 'r3',
        name: 'Lowest bass note, 41 Hz',
        measure: { measure: 'level', atHz: 41 },
        wanted: { is: 'near', value: 0, tolerance: 0.5, relative: false },
      },
      {
        id: 'r4',
        measure: { measure: 'level', atHz: 1000 },
        wanted: { is: 'near', value: 0, tolerance: 0.2, relative: false },
      },
      { id: 'r5', measure: { measure: 'slope', fromHz: 3, toHz: 6 } },
      { id: 'r6', measure: { measure: 'phase', atHz: 41 } },
    ],
  });
  return { ...sheet, view: { ...sheet.view, fromHz: 2, toHz: 2000 } };
}

/** Speech for the hearing loop: nothing above 3.4 kHz may reach its driver. */
function speechLowPass(at: string): Sheet {
  const sheet = makeSheet({
    id: 'demo-speech',
    demo: 'speech',
    title: 'Speech band for the hearing loop',
    at,
    ask: {
      kind: 'low-pass',
      shape: 'butterworth',
      order: 4,
      edgeHz: 3400,
      edge: 'half-power',
      gainDb: 0,
      topology: 'unity-low-pass',
    },
    source: { name: 'Desk line out', ohms: 600, volts: 1.2 },
    load: { name: 'Loop driver in', ohms: 10_000, farads: 220e-12 },
    readings: [
      {
        id: 'r1',
        measure: {
          measure: 'edge',
          downDb: HALF_POWER_DB,
          side: 'upper',
          reference: { from: 'plateau' },
        },
        wanted: { is: 'near', value: 3400, tolerance: 0.03, relative: true },
      },
      {
        id: 'r2',
        measure: { measure: 'level', atHz: 1000 },
        wanted: { is: 'near', value: 0, tolerance: 0.5, relative: false },
      },
      {
        id: 'r3',
        name: 'Down at 8 kHz',
        measure: { measure: 'level', atHz: 8000 },
        wanted: { is: 'at-most', value: -28 },
      },
      { id: 'r4', measure: { measure: 'peak-level' }, wanted: { is: 'at-most', value: 0.3 } },
      { id: 'r5', measure: { measure: 'slope', fromHz: 10_000, toHz: 20_000 } },
    ],
  });
  return { ...sheet, view: { ...sheet.view, fromHz: 50, toHz: 20_000 } };
}

/** A keyboard's line output, its top taken down a little by one resistor and one capacitor. */
function trimmedRc(at: string): Sheet {
  const sheet = makeSheet({
    id: 'demo-trim',
    demo: 'trim',
    title: 'Top trimmed on the keyboard line',
    at,
    ask: {
      kind: 'low-pass',
      shape: 'butterworth',
      order: 1,
      edgeHz: 7000,
      edge: 'half-power',
      topology: 'rc-low-pass',
    },
    source: { name: 'Keyboard out', ohms: 470, volts: 0.8 },
    load: { name: 'Power amplifier in', ohms: 47_000, farads: 330e-12 },
  });
  return { ...sheet, view: { ...sheet.view, fromHz: 50, toHz: 50_000 } };
}

/** The hall's lighting hums into the hearing loop at 50 Hz: one narrow notch before its driver. */
function humNotch(at: string): Sheet {
  const sheet = makeSheet({
    id: 'demo-hum',
    demo: 'hum',
    title: 'Hum notch for the hearing loop',
    at,
    ask: {
      kind: 'notch',
      shape: 'butterworth',
      centreHz: 50,
      q: 4,
      gainDb: 0,
      topology: 'twin-t-notch-bootstrapped',
    },
    source: { name: 'Loop preamp', ohms: 100, volts: 0.5 },
    load: { name: 'Loop driver in', ohms: 22_000 },
  });
  return { ...sheet, view: { ...sheet.view, fromHz: 10, toHz: 1000 } };
}

/** Before the recorder's converter: all of the music, nothing of what would fold back into it. */
function steepLowPass(at: string): Sheet {
  const sheet = makeSheet({
    id: 'demo-steep',
    demo: 'steep',
    title: 'Steep low-pass before the recorder',
    at,
    ask: {
      kind: 'low-pass',
      shape: 'elliptic',
      limits: { passHz: 15_000, passDb: 0.2, stopHz: 26_000, stopDb: 50 },
    },
    source: { name: 'Mixer out', ohms: 100, volts: 1 },
    load: { name: 'Recorder in', ohms: 10_000, farads: 470e-12 },
  });
  return { ...sheet, view: { ...sheet.view, fromHz: 500, toHz: 100_000 } };
}

/** The keyboard maker's bank: eight octave bands for shaping a drone. */
function eightBands(at: string): Sheet {
  return makeBank({
    id: 'demo-bank',
    demo: 'bank',
    title: 'Eight-band bank for the drone box',
    at,
    centresHz: [63, 125, 250, 500, 1000, 2000, 4000, 8000],
    stages: 2,
    source: { name: 'Drone box', ohms: 0, volts: 1 },
    load: { name: 'Summing resistor', ohms: 47_000 },
  });
}

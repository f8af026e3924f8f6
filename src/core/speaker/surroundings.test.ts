import fc from 'fast-check';
import { size } from '@/core/numeric/complex';
import { SPEED_OF_SOUND } from './air';
import { readSpeaker } from './document';
import { soundLevels } from './sound-levels';
import { SolvedSpeaker } from './solved-speaker';
import { aroundBaffle, heardAround } from './heard-around';
import type { Surroundings } from './surroundings';
import { prepareUnit } from './unit';

const place = { xMetres: 0, yMetres: 0, zMetres: 0 };
const listener = { xMetres: 0, yMetres: 0, zMetres: 3 };
const unit = prepareUnit({
  id: 'u',
  name: 'u',
  ideal: { ohms: 8, levelDb: 90 },
  directivity: 'even',
  place,
});
const level = (hz: number, around?: Surroundings) =>
  20 * Math.log10(size(heardAround(unit, place, listener, hz, around)));

test('a baffle loses 6 dB far below its step, 3 dB at 115 Hz over its width, nothing far above', () => {
  const baffle = { widthMetres: 0.23 };
  const lost = (hz: number) => level(hz) - level(hz, { baffle });
  expect(lost(1)).toBeCloseTo(6.0206, 3);
  expect(lost(115 / 0.23)).toBeCloseTo(10 * Math.log10(2), 6);
  expect(lost(100_000)).toBeCloseTo(0, 3);
  // What is lost in front is what goes to the back.
  const { re, im } = aroundBaffle(0.23, 300);
  expect(20 * Math.log10(Math.hypot(1 - re, im))).toBeCloseTo(-lost(300), 9);
});

test('close to a wall a small box is again as loud in the bass as in an endless wall', () => {
  const around = {
    baffle: { widthMetres: 0.2 },
    wall: { behindMetres: 0.0101, returns: 1 },
  };
  expect(level(10, around)).toBeCloseTo(level(10), 1);
  // Without a baffle all of the sound goes to the front, and a wall behind it sends nothing back.
  expect(level(10, { wall: around.wall })).toBe(level(10));
});

test('a hard floor doubles the bass, and takes out the tone whose path is half a wave longer', () => {
  const floor = { belowMetres: 0.9, returns: 1 };
  const [direct, longer] = [3, Math.hypot(3, 1.8)];
  const first = SPEED_OF_SOUND / (2 * (longer - direct));
  expect(level(1, { floor }) - level(1)).toBeCloseTo(20 * Math.log10(1 + direct / longer), 3);
  expect(level(first, { floor }) - level(first)).toBeCloseTo(
    20 * Math.log10(1 - direct / longer),
    6,
  );
  expect(level(first, { floor: { ...floor, returns: 0 } })).toBe(level(first));
});

test('a speaker is heard with what its document says of its surroundings, wherever one listens', () => {
  const document = {
    format: 'jaunty-reed/speaker',
    version: 1,
    drivers: [{ id: 'u', ideal: { ohms: 8, levelDb: 90 } }],
    network: [{ id: 'R', kind: 'resistor', a: 'amp', b: 'u', ohms: 1 }],
    connections: [{ driver: 'u', plus: 'u', minus: '0' }],
    listen: listener,
  };
  const hz = Float64Array.of(40, 200, 900, 5000);
  fc.assert(
    fc.property(
      fc.record(
        {
          baffle: fc.record({ widthMetres: fc.double({ min: 0.05, max: 1, noNaN: true }) }),
          floor: fc.record({
            belowMetres: fc.double({ min: 0.1, max: 3, noNaN: true }),
            returns: fc.double({ min: 0, max: 1, noNaN: true }),
          }),
          wall: fc.record({
            behindMetres: fc.double({ min: 0.1, max: 3, noNaN: true }),
            returns: fc.double({ min: 0, max: 1, noNaN: true }),
          }),
        },
        { requiredKeys: [] },
      ),
      (surroundings) => {
        const plain = new SolvedSpeaker(readSpeaker(document));
        const around = new SolvedSpeaker(readSpeaker({ ...document, surroundings }));
        const [a, b] = [plain, around].map((s) => soundLevels(s.sound(s.electrical(hz)).sum));
        hz.forEach((f, k) => expect(b[k] - a[k]).toBeCloseTo(level(f, surroundings) - level(f), 6));
      },
    ),
    { numRuns: 40 },
  );
});

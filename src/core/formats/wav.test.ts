import fc from 'fast-check';
import { WaveFile } from 'wavefile';
import { readWav, wavOf } from './wav';

const file = (depth: string, rate: number, samples: number[] | number[][]): Uint8Array => {
  const wav = new WaveFile();
  const channels = Array.isArray(samples[0]) ? (samples as number[][]).length : 1;
  wav.fromScratch(channels, rate, depth, samples as number[]);
  return wav.toBuffer();
};

test('volts go into a file of 32-bit numbers and come back as they are', () => {
  const volts = Float32Array.of(0, 11.5, -0.25, 1e-6);
  const { samples, rate, depth, channels } = readWav(wavOf(volts, 44_101), 'x.wav');
  expect(Array.from(samples)).toEqual(Array.from(volts));
  expect([rate, depth, channels]).toEqual([44_101, '32f', 1]);
});

test.each([
  ['8', [128, 255, 0], [0, 127 / 128, -1]],
  ['16', [0, 32_767, -32_768], [0, 32_767 / 32_768, -1]],
  ['24', [0, 4_194_304, -8_388_608], [0, 0.5, -1]],
  ['32', [0, 1_073_741_824, -2_147_483_648], [0, 0.5, -1]],
  ['64', [0, 0.5, -1], [0, 0.5, -1]],
])('%s bits are read to full scale', (depth, given, read) => {
  const { samples } = readWav(file(depth, 8000, given), 'x.wav');
  samples.forEach((v, k) => expect(v).toBeCloseTo(read[k], 9));
});

test('channels are added up in equal parts', () => {
  const { samples, channels } = readWav(
    file('32f', 96_000, [
      [1, 0.5],
      [0, -0.5],
    ]),
    'x.wav',
  );
  expect(channels).toBe(2);
  expect(Array.from(samples)).toEqual([0.5, 0]);
});

test.each<[string, Uint8Array, RegExp]>([
  ['text', new TextEncoder().encode('no sound at all'), /no WAV file/],
  ['nothing', new Uint8Array(0), /no WAV file/],
  ['a heading alone', wavOf([1], 8000).slice(0, 14), /“x\.wav” cannot be played: its header/],
  ['no samples', wavOf([], 8000), /holds no samples/],
  ['a number that is none', wavOf([0, NaN], 8000), /sample 2 is no number/],
  ['a rate that is none', wavOf([0], 12), /says 12 samples a second/],
])('%s is refused with a reason', (_, bytes, why) => {
  expect(() => readWav(bytes, 'x.wav')).toThrow(why);
});

test('whatever is broken of a file, it is read or refused in words', () => {
  const whole = file('16', 44_100, [1, 2, 3, 4, 5, 6, 7, 8]);
  fc.assert(
    fc.property(fc.nat(whole.length - 1), fc.nat(255), fc.nat(whole.length), (at, byte, length) => {
      const bytes = whole.slice(0, length);
      if (at < length) bytes[at] = byte;
      try {
        return readWav(bytes, 'x.wav').samples.every((v) => Number.isFinite(v));
      } catch (error) {
        return /“x\.wav” cannot be played: /.test((error as Error).message);
      }
    }),
    { numRuns: 400 },
  );
});

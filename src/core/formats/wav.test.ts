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

test.each([
  [9, 2],
  [12, 2],
  [20, 3],
  [27, 4],
])('%i bits lie at the upper end of %i bytes', (bits, bytes) => {
  // Half of full scale, whatever the bits.
  const { samples } = readWav(raw({ bits, align: bytes, data: [...zeros(bytes - 1), 0x40] }), 'x');
  expect(samples[0]).toBe(0.5);
});

const zeros = (count: number): number[] => new Array<number>(count).fill(0);

/** A file as its bytes say, right or wrong. */
function raw({ format = 1, bits = 16, align = 2, fields = 16, data = [0, 0, 0, 0, 0, 0, 0, 0] }) {
  const at = 20 + fields;
  const view = new DataView(new ArrayBuffer(at + 8 + data.length));
  const text = (where: number, word: string) =>
    [...word].forEach((c, k) => view.setUint8(where + k, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, at + data.length, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, fields, true);
  const header = [format, 1, 8000, 0, 8000 * align, 0, align, bits];
  header.slice(0, fields / 2).forEach((x, k) => view.setUint16(20 + 2 * k, x & 0xffff, true));
  text(at, 'data');
  view.setUint32(at + 4, data.length, true);
  data.forEach((x, k) => view.setUint8(at + 8 + k, x));
  return new Uint8Array(view.buffer);
}

test.each([
  ['no bits', { bits: 0 }, /says whole numbers of 0 bits; 8 to 32 are read/],
  ['too many bits', { bits: 64, align: 8 }, /says whole numbers of 64 bits/],
  ['floating point of 16 bits', { format: 3 }, /says floating point of 16 bits; 32 and 64/],
  ['blocks of another length', { align: 7 }, /says blocks of 7 bytes, and its samples take 2/],
  ['another way of packing', { format: 85 }, /packed in a way \(format 85\) that is not read/],
  ['half a header', { fields: 4 }, /says 4 bytes of format, and 16 are the least/],
])('%s is refused with what the header says', (_, what, why) => {
  expect(() => readWav(raw(what), 'x.wav')).toThrow(why);
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

import { WaveFile } from 'wavefile';
import { messageOf, ReedError } from '@/core/errors';

/** Samples a second that are sound or something near it. */
const RATES = [1000, 768_000] as const;
const MOST_CHANNELS = 64;
/** Ten minutes at 48 kHz: more would fill the memory of a page. */
const MOST_SAMPLES = 28_800_000;

/** A recording: its channels added up in equal parts, full scale at 1. */
export interface WavSound {
  rate: number;
  channels: number;
  /** "8" to "32", "32f", "64", or a compressed form as “4”, "8a", "8m". */
  depth: string;
  samples: Float64Array;
}

/** Volts as they are, as a WAV file of 32-bit floating point numbers with one channel. */
export function wavOf(samples: ArrayLike<number>, rate: number): Uint8Array {
  const file = new WaveFile();
  file.fromScratch(1, rate, '32f', samples);
  return file.toBuffer();
}

/**
 * Any WAV file: whole numbers of 8 to 32 bit, floating point, any rate and number of channels.
 *
 * @param name what the file is called in a refusal
 * @throws ReedError `document` saying why it cannot be played
 */
export function readWav(bytes: Uint8Array, name: string): WavSound {
  const refuse = (why: string) => new ReedError('document', `“${name}” cannot be played: ${why}.`);
  if (
    bytes.length < 12 ||
    !['RIFF', 'RIFX', 'RF64'].includes(ascii(bytes, 0)) ||
    ascii(bytes, 8) !== 'WAVE'
  )
    throw refuse('it is no WAV file; save it as WAV first');
  const file = new WaveFile();
  try {
    file.fromBuffer(bytes);
  } catch (error) {
    throw refuse(`its header is broken (${messageOf(error)})`);
  }
  const format = file.fmt as Format;
  const { numChannels: channels, sampleRate: rate } = format;
  if (format.chunkSize < 16)
    throw refuse(`its header says ${format.chunkSize} bytes of format, and 16 are the least`);
  if (!(channels >= 1 && channels <= MOST_CHANNELS))
    throw refuse(`its header says ${channels} channels`);
  if (!(rate >= RATES[0] && rate <= RATES[1]))
    throw refuse(`its header says ${rate} samples a second`);
  const wrong = packingProblem(format);
  if (wrong) throw refuse(wrong);
  const depth = file.bitDepth;
  const all = decoded(file, refuse);
  const count = Math.floor(all.length / channels);
  if (count === 0) throw refuse('it holds no samples');
  if (count > MOST_SAMPLES)
    throw refuse(`it holds ${count} samples and ten minutes are the most: cut it first`);
  const scale = fullScale(depth) * channels;
  // Eight bits are counted from the middle of what is never below nought.
  const middle = depth === '8' ? 128 : 0;
  const samples = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    for (let c = 0; c < channels; c++) samples[k] += (all[k * channels + c] - middle) / scale;
    if (!Number.isFinite(samples[k])) throw refuse(`its sample ${k + 1} is no number`);
  }
  return { rate, channels, depth, samples };
}

/** Samples as they lie in the file, channel beside channel; compressed ones as 16-bit numbers. */
function decoded(file: WaveFile, refuse: (why: string) => ReedError): Float64Array {
  try {
    if (file.bitDepth === '4') file.fromIMAADPCM();
    else if (file.bitDepth === '8a') file.fromALaw();
    else if (file.bitDepth === '8m') file.fromMuLaw();
    return file.getSamples(true);
  } catch (error) {
    throw refuse(`its samples cannot be read (${messageOf(error)})`);
  }
}

/** What the format chunk of a file says, as it stands there. */
interface Format {
  chunkSize: number;
  audioFormat: number;
  numChannels: number;
  sampleRate: number;
  blockAlign: number;
  bitsPerSample: number;
  subformat: number[];
}

/** Numbers of formats (RFC 2361, appendix A); of an extended one the sub-format begins with its own. */
const [WHOLE, FLOATING, EXTENDED] = [1, 3, 0xfffe];
const COMPRESSED = [6, 7, 17];

const bytesOf = (bits: number): number => Math.ceil(bits / 8);

/** Why samples of a format cannot be read; undefined where they can. */
function packingProblem(format: Format): string | undefined {
  const { audioFormat, numChannels, blockAlign, bitsPerSample: bits, subformat } = format;
  const packed = audioFormat === EXTENDED ? subformat[0] & 0xffff : audioFormat;
  if (COMPRESSED.includes(packed)) return undefined;
  if (packed !== WHOLE && packed !== FLOATING)
    return `its samples are packed in a way (format ${packed}) that is not read: save it as whole or floating point numbers`;
  if (packed === WHOLE && !(bits >= 8 && bits <= 32))
    return `its header says whole numbers of ${bits} bits; 8 to 32 are read`;
  if (packed === FLOATING && bits !== 32 && bits !== 64)
    return `its header says floating point of ${bits} bits; 32 and 64 are read`;
  const takes = numChannels * bytesOf(bits);
  if (blockAlign !== takes)
    return `its header is broken: it says blocks of ${blockAlign} bytes, and its samples take ${takes}`;
  return undefined;
}

/** Whole numbers lie at the upper end of the bytes they take, whatever their bits. */
function fullScale(depth: string): number {
  if (depth === '32f' || depth === '64') return 1;
  const bytes = ['4', '8a', '8m'].includes(depth) ? 2 : bytesOf(Number.parseInt(depth, 10));
  return 2 ** (8 * bytes - 1);
}

const ascii = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + 4));

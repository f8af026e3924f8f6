import { readWav } from '@/core/formats/wav';
import { messageOf } from '@/core/errors';
import { refuse } from '../shell/tell';
import { changeProgram, setListening } from './listening';

/** Larger files are not read: ten minutes of two channels of 32 bits at 96 kHz. */
const LARGEST = 460_000_000;

/** Read a WAV file, and play it from now on; what cannot be played is said in words. */
export async function openRecording(file: File): Promise<void> {
  try {
    if (file.size > LARGEST)
      throw new Error(`“${file.name}” is too large: cut it to ten minutes first.`);
    const { samples, rate } = readWav(new Uint8Array(await file.arrayBuffer()), file.name);
    setListening({ recording: { name: file.name, samples, rate } });
    changeProgram({ sound: 'recording' });
  } catch (error) {
    refuse(messageOf(error), 'recording');
  }
}

/** The lowest rate that every browser's converter takes. */
const LOWEST = 8000;

/** A recording at another rate, by the browser's own converter. */
export async function resampled(
  samples: Float64Array,
  from: number,
  to: number,
): Promise<Float32Array> {
  const known = Float32Array.from(samples);
  if (from === to) return known;
  let [data, rate] = [known, from];
  // Below what the converter takes, straight lines between samples do.
  while (rate < LOWEST) [data, rate] = [doubled(data), rate * 2];
  const length = Math.max(1, Math.round((data.length * to) / rate));
  const context = new OfflineAudioContext(1, length, to);
  const buffer = new AudioBuffer({ length: data.length, sampleRate: rate, numberOfChannels: 1 });
  buffer.copyToChannel(data, 0);
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  source.start();
  return (await context.startRendering()).getChannelData(0);
}

const doubled = (data: Float32Array<ArrayBuffer>): Float32Array<ArrayBuffer> =>
  Float32Array.from({ length: data.length * 2 }, (_, k) => {
    const [a, b] = [data[k >> 1], data[Math.min(data.length - 1, (k >> 1) + 1)]];
    return k % 2 === 0 ? a : (a + b) / 2;
  });

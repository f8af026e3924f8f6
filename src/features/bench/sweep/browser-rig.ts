import type { Recording } from '@/core/sweep/swept';
import { audioInput } from '../../listen/audio-input';
import { end as endListening } from '../../listen/sounding';
import { Stopped, type AudioRig, type PlayOptions } from './audio-rig';

/** It is listened for so long after the last sample was played: wireless things are late. */
const TAIL_SECONDS = 1.2;

/** What the audio thread says. */
type Said = { is: 'peak'; peak: number } | { is: 'recorded'; samples: Float32Array };

/**
 * This computer’s audio output and input. Nothing sounds until something is played.
 *
 * @throws Error with words for a person where the browser has no input, or may not use it
 */
export async function browserRig(): Promise<AudioRig> {
  // What listens to circuits would be heard in the sweep.
  endListening();
  const stream = await audioInput();
  const context = new AudioContext({ latencyHint: 'playback' });
  const close = () => {
    stream.getTracks().forEach((track) => track.stop());
    void context.close();
  };
  try {
    await context.audioWorklet.addModule(new URL('./recorder.mjs', import.meta.url));
    const node = new AudioWorkletNode(context, 'recorder', {
      channelCount: 1,
      channelCountMode: 'explicit',
      outputChannelCount: [1],
    });
    context.createMediaStreamSource(stream).connect(node).connect(context.destination);
    await context.resume();
    const once = (samples: Float64Array, { signal, onPeak }: PlayOptions) =>
      new Promise<Recording>((resolve, reject) => {
        const stop = () => {
          node.port.postMessage({ is: 'stop' });
          reject(new Stopped());
        };
        if (signal.aborted) return stop();
        signal.addEventListener('abort', stop, { once: true });
        node.port.onmessage = ({ data }: MessageEvent<Said>) => {
          if (data.is === 'peak') return onPeak(data.peak);
          signal.removeEventListener('abort', stop);
          resolve({ samples: Float64Array.from(data.samples), rate: context.sampleRate });
        };
        const tail = Math.round(TAIL_SECONDS * context.sampleRate);
        node.port.postMessage({ is: 'play', samples: Float32Array.from(samples), tail });
      });
    return {
      rate: context.sampleRate,
      async play(samples, options) {
        const recordings: Recording[] = [];
        for (let n = 0; n < options.times; n++) recordings.push(await once(samples, options));
        return recordings;
      },
      close: () => {
        node.port.postMessage({ is: 'end' });
        close();
      },
    };
  } catch (error) {
    close();
    throw error;
  }
}

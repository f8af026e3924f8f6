/* global AudioWorkletProcessor, registerProcessor */

/** It says so often what it hears, samples. */
const EVERY = 2048;
/** What is stopped falls silent within so many samples. */
const FALL = 512;

/**
 * Plays samples and records what comes in meanwhile, both counted by the same clock. It runs in the
 * audio thread, as it stands here: it imports nothing.
 */
class Recorder extends AudioWorkletProcessor {
  constructor() {
    super();
    this.work = null;
    this.heard = 0;
    this.told = 0;
    this.port.onmessage = ({ data }) => {
      if (data.is === 'play')
        this.work = {
          samples: data.samples,
          recorded: new Float32Array(data.samples.length + data.tail),
          at: 0,
          stopAt: Infinity,
        };
      else if (data.is === 'stop' && this.work) this.work.stopAt = this.work.at;
      else if (data.is === 'end') this.ended = true;
    };
  }

  process(inputs, outputs) {
    if (this.ended) return false;
    const [input] = inputs[0];
    const count = outputs[0][0].length;
    for (let k = 0; k < count; k++) {
      const heard = input ? input[k] : 0;
      this.heard = Math.max(this.heard, Math.abs(heard));
      const played = this.step(heard);
      for (const channel of outputs[0]) channel[k] = played;
    }
    this.told += count;
    if (this.told >= EVERY) {
      this.port.postMessage({ is: 'peak', peak: this.heard });
      this.told = 0;
      this.heard = 0;
    }
    return true;
  }

  /** One sample in, one out. */
  step(heard) {
    const { work } = this;
    if (!work) return 0;
    const { samples, recorded, stopAt } = work;
    const at = work.at++;
    if (at >= recorded.length || at >= stopAt + FALL) {
      this.work = null;
      if (stopAt === Infinity)
        this.port.postMessage({ is: 'recorded', samples: recorded }, [recorded.buffer]);
      return 0;
    }
    recorded[at] = heard;
    if (at >= samples.length) return 0;
    return samples[at] * (at < stopAt ? 1 : 1 - (at - stopAt) / FALL);
  }
}

registerProcessor('recorder', Recorder);

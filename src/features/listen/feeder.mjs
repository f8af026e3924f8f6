/* global AudioWorkletProcessor, registerProcessor */

/** So many samples must lie ready before it begins. */
const BEGIN_WITH = 2048;
/** It holds no more than this: more than is ever made ahead. */
const ROOM = 16384;
/** It says so often how far it is, samples. */
const EVERY = 256;
/** What takes the place of what lay there comes in within so many samples. */
const JOIN = 64;

/**
 * Hands on what the player made ahead, and says how far it is. It runs in the audio thread, as it
 * stands here: it imports nothing, and allocates only for what comes in.
 */
class Feeder extends AudioWorkletProcessor {
  constructor() {
    super();
    /** What lies ready, sample by sample from `played` to `end`, each at its place. */
    this.ready = new Float32Array(ROOM);
    this.played = 0;
    this.end = 0;
    /** Samples that are still to come in gradually. */
    this.joining = 0;
    this.missed = 0;
    this.begun = false;
    this.listening = false;
    this.told = 0;
    this.player = null;
    this.port.onmessage = ({ data }) => {
      if (data.is === 'port') {
        this.player = data.port;
        this.player.onmessage = (event) => this.take(event.data);
        this.player.postMessage({ played: 0, missed: 0 });
      } else if (data.is === 'listen') this.listening = data.on;
      else if (data.is === 'end') this.ended = true;
    };
  }

  /** A piece may lie where another lay; what is over is left out. */
  take({ at, joins, samples }) {
    const { ready, end } = this;
    if (joins) this.joining = JOIN;
    for (let k = Math.max(0, this.played - at); k < samples.length; k++) {
      const place = (at + k) % ROOM;
      const part = this.joining > 0 && at + k < end ? 1 - this.joining-- / (JOIN + 1) : 1;
      ready[place] = part * samples[k] + (part < 1 ? (1 - part) * ready[place] : 0);
    }
    this.end = Math.max(end, at + samples.length);
    if (this.end - this.played >= BEGIN_WITH) this.begun = true;
  }

  process(inputs, outputs) {
    if (this.ended) return false;
    const [out] = outputs[0];
    const count = this.begun ? Math.min(out.length, this.end - this.played) : 0;
    for (let k = 0; k < count; k++) out[k] = this.ready[(this.played + k) % ROOM];
    this.played += count;
    if (this.begun && count < out.length) this.missed++;
    if (!this.player) return true;
    const incoming = this.listening && inputs[0][0] ? inputs[0][0].slice() : undefined;
    if (incoming || this.played - this.told >= EVERY || count < out.length) {
      this.told = this.played;
      this.player.postMessage({ played: this.played, missed: this.missed, incoming });
    }
    return true;
  }
}

registerProcessor('feeder', Feeder);

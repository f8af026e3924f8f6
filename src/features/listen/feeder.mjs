/* global AudioWorkletProcessor, registerProcessor */

/** So many samples must lie ready before it begins. */
const BEGIN_WITH = 2048;

/**
 * Hands on what the player made ahead, and says how far it is. It runs in the audio thread, as it
 * stands here: it imports nothing, and allocates only for what comes in.
 */
class Feeder extends AudioWorkletProcessor {
  constructor() {
    super();
    this.blocks = [];
    this.at = 0;
    this.played = 0;
    this.missed = 0;
    this.begun = false;
    this.waiting = 0;
    this.listening = false;
    this.told = 0;
    this.player = null;
    this.port.onmessage = ({ data }) => {
      if (data.is === 'port') {
        this.player = data.port;
        this.player.onmessage = (event) => {
          this.blocks.push(event.data);
          this.waiting += event.data.length;
          if (this.waiting >= BEGIN_WITH) this.begun = true;
        };
        this.player.postMessage({ played: 0, missed: 0 });
      } else if (data.is === 'listen') this.listening = data.on;
      else if (data.is === 'end') this.ended = true;
    };
  }

  process(inputs, outputs) {
    if (this.ended) return false;
    const [out] = outputs[0];
    let k = 0;
    while (this.begun && k < out.length && this.blocks.length > 0) {
      const block = this.blocks[0];
      const count = Math.min(out.length - k, block.length - this.at);
      out.set(block.subarray(this.at, this.at + count), k);
      k += count;
      this.at += count;
      if (this.at === block.length) {
        this.blocks.shift();
        this.at = 0;
      }
    }
    this.played += k;
    this.waiting -= k;
    if (this.begun && k < out.length) this.missed++;
    if (!this.player) return true;
    const incoming = this.listening && inputs[0][0] ? inputs[0][0].slice() : undefined;
    if (incoming || this.played - this.told >= 128 || k < out.length) {
      this.told = this.played;
      const ready = this.begun ? this.waiting : undefined;
      this.player.postMessage({ played: this.played, missed: this.missed, ready, incoming });
    }
    return true;
  }
}

registerProcessor('feeder', Feeder);

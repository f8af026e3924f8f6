import { otaCascade } from '@/core/cells/ota-cascade';
import { voiceSheet } from '@/core/sheet/voice';
import { Answers, decibels, near, so, unmoved } from './goals';
import type { Lesson } from './lesson';

const NOTE = 440;

/** Cut-off and resonance of a voltage-controlled filter. */
export const singing: Lesson = {
  id: 'singing',
  chapter: 'voices',
  title: 'How a filter comes to sing',
  question:
    'Four sections in a row, and a way back from the last to the first. Can the filter be made to ring at 440 Hz, twenty decibels out of its band, just by its two controls?',
  turn: 'Move Cut-off and Resonance under the circuit. They pull at each other a little: go from one to the other.',
  see: 'Resonance lifts the curve at one frequency; the table says where it is, and under the control stands where it begins to sing. Listen to it: the peak is a note.',
  because:
    'Each section turns the signal by an eighth of a turn at the cut-off, four of them by half a turn: what comes back helps there and nowhere else. Where the way back makes up for the loss of four sections, a factor of four, it keeps going by itself. The volts for an octave are the converter’s, and the note moves with them.',
  begin: (id, at) =>
    voiceSheet({
      id,
      title: singing.title,
      at,
      cell: otaCascade,
      lowHz: 30,
      highHz: 12_000,
      source: { name: 'Oscillator', ohms: 1000, volts: 0.1 },
      load: { name: 'Amplifier in', ohms: 47_000 },
    }),
  goals: (sheet, begun) => {
    const answers = new Answers(sheet);
    const top = answers.read({ measure: 'peak-level' });
    const low = answers.read({ measure: 'plateau' });
    return [
      near('Peak', answers, { measure: 'peak-frequency' }, NOTE, 0.03),
      so(
        'Peak 20 dB over the band',
        top === null || low === null ? null : decibels(top - low),
        top !== null && low !== null && top - low >= 20,
      ),
      unmoved(answers, begun),
    ];
  },
};

import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { DEFAULT_PARTS, makeSheet } from '@/core/sheet/make';
import { Answers, kept, level, levelAt, near, so, upperEdge } from './goals';
import type { Lesson } from './lesson';

const named = (start: string) => OP_AMPS.find((m) => m.name.startsWith(start))!;
const slow = named('low-power');
const slowest = named('micropower');

/** The op-amp is a part too. */
export const slowOpAmp: Lesson = {
  id: 'op-amp',
  chapter: 'opAmps',
  title: 'What a slow op-amp does',
  question:
    'A filter for 20 kHz is right on paper, and its edge comes out elsewhere. The parts are good. What is not?',
  turn: 'Leave the values alone: choose another op-amp for the sheet.',
  see: 'The dashes are what was asked, the thick curve is what the parts give. With a faster op-amp they meet.',
  because:
    'An op-amp has no gain to spare near its bandwidth, and a stage of Q leans on it: about a hundred times Q times the edge keeps the error near a per cent. The figure is on the stage’s card as what it needs.',
  begin: (id, at) =>
    makeSheet({
      id,
      title: slowOpAmp.title,
      at,
      parts: { ...DEFAULT_PARTS, opAmp: { ...slowest }, resistors: 'E96' },
      ask: {
        kind: 'low-pass',
        shape: 'butterworth',
        order: 2,
        edgeHz: 20_000,
        edge: 'half-power',
        gainDb: 0,
        topology: 'unity-low-pass',
      },
    }),
  goals: (sheet, begun) => {
    const answers = new Answers(sheet);
    const [stage] = begun.ways[0].stages;
    return [
      near('Upper edge', answers, upperEdge, 20_000, 0.025),
      kept(['R1', 'R2', 'C1', 'C2'], answers.stages[0], stage),
      so('A real op-amp', sheet.parts.opAmp.name, sheet.parts.opAmp.model !== 'ideal'),
    ];
  },
};

const EDGE = 5000;

/** The same poles, two circuits. */
export const arrangements: Lesson = {
  id: 'arrangements',
  chapter: 'opAmps',
  title: 'Why two arrangements exist',
  question:
    'This low-pass cuts well at first, and comes up again far above: at a megahertz hardly anything is kept away. Another arrangement of one op-amp has the same poles. Does it leak, too?',
  turn: 'Look at the level from 100 kHz up. Then take the other arrangement: say “as multiple-feedback stages” in the sentence, or choose it in the weigh-up.',
  see: 'In the first, a capacitor leads straight from the input to the op-amp’s output, and there the output has some ohms and no loop gain left to hold it. In the second a capacitor to ground stands in the way.',
  because:
    'One response, two circuits: the first does not invert, needs no more than its gain from the resistors’ ratio and is fed from anything; the second inverts, loads what feeds it, and goes on cutting where the op-amp gives up. What a filter has to face beyond its band decides.',
  begin: (id, at) => {
    const sheet = makeSheet({
      id,
      title: arrangements.title,
      at,
      parts: { ...DEFAULT_PARTS, opAmp: { ...slow } },
      ask: {
        kind: 'low-pass',
        shape: 'butterworth',
        order: 2,
        edgeHz: EDGE,
        edge: 'half-power',
        topology: 'unity-low-pass',
      },
    });
    return { ...sheet, view: { ...sheet.view, fromHz: 100, toHz: 5e6 } };
  },
  goals: (sheet) => {
    const answers = new Answers(sheet);
    return [
      near('Upper edge', answers, upperEdge, EDGE, 0.06),
      level('Level at 1 MHz', answers, levelAt(1e6), { atMost: -60 }),
      so(
        'A single op-amp, and a real one',
        `${answers.stages.length} ${answers.stages.length === 1 ? 'stage' : 'stages'}, ${sheet.parts.opAmp.name}`,
        answers.stages.length === 1 && sheet.parts.opAmp.name === slow.name,
      ),
    ];
  },
};

const NOTE = 220;

/** Overtones of a saw, one after the other. */
export const harmonics: Lesson = {
  id: 'harmonics',
  chapter: 'opAmps',
  title: 'Why a steep filter lets harmonics in one by one',
  question:
    'A saw of 220 Hz has all its harmonics: 220, 440, 660, 880 Hz and on. Can a filter let three of them through and keep the fourth out?',
  turn: 'Click the edge in the sentence and raise it; then look what order it takes. The shape matters, too: equal ripple is steeper than flat.',
  see: 'In the lens Harmonics, a saw goes through while the edge moves. Steep: each harmonic comes in by itself and is heard as a note. Gentle: they come in together, and only the colour changes.',
  because:
    'From the third harmonic to the fourth is five twelfths of an octave. To fall by 20 dB within it takes 48 dB an octave and more: about eight orders, or fewer with ripple. That is why the whistling sweep of a steep filter sounds like a series of notes, and a gentle one like a vowel.',
  begin: (id, at) => {
    const sheet = makeSheet({
      id,
      title: harmonics.title,
      at,
      ask: {
        kind: 'low-pass',
        shape: 'butterworth',
        order: 4,
        edgeHz: 300,
        edge: 'half-power',
        gainDb: 0,
      },
    });
    return { ...sheet, view: { ...sheet.view, fromHz: 100, toHz: 5000 } };
  },
  goals: (sheet) => {
    const answers = new Answers(sheet);
    return [
      ...[1, 2, 3].map((n) =>
        level(`Harmonic ${n}, ${n * NOTE} Hz,`, answers, levelAt(n * NOTE), { atLeast: -3.5 }),
      ),
      level('Harmonic 4, 880 Hz,', answers, levelAt(4 * NOTE), { atMost: -20 }),
    ];
  },
};

/** Equal parts that have to be equal. */
export const matched: Lesson = {
  id: 'notch',
  chapter: 'opAmps',
  title: 'Why some parts have to match',
  question:
    'A twin T takes out 50 Hz, on paper without an end. With parts from the E12 row it is a shallow dip. What is it that has to fit?',
  turn: 'Turn R3, or R1 and R2 together, while you look at the depth at 50 Hz: hundredths count here.',
  see: 'Two paths, by resistors and by capacitors, cancel at the notch. Where one is a hundredth too strong, a hundredth of the input is left.',
  because:
    'A depth of 40 dB asks that two paths agree within a hundredth, 60 dB within a thousandth. Where a response lives from a difference, parts are matched or trimmed; where it does not, ordinary ones do.',
  topology: 'twin-t-notch',
  begin: (id, at) =>
    makeSheet({
      id,
      title: matched.title,
      at,
      parts: { ...DEFAULT_PARTS, resistors: 'E12' },
      ask: { kind: 'notch', shape: 'butterworth', centreHz: 50, q: 2, topology: 'twin-t-notch' },
    }),
  goals: (sheet) => {
    const answers = new Answers(sheet);
    return [
      level('Level at 50 Hz', answers, levelAt(50), { atMost: -45 }),
      level('Level at 1 kHz', answers, levelAt(1000), { atLeast: -1 }),
      level('Level at 2 Hz', answers, levelAt(2), { atLeast: -1 }),
    ];
  },
};

import { makeSheet, makeStage, DEFAULT_PARTS } from '@/core/sheet/make';
import { topologyOf } from '@/core/topologies';
import { Answers, decibels, kept, level, levelAt, near, so, upperEdge } from './goals';
import type { Lesson } from './lesson';
import { sheetOfStage } from './tuned';

const rcLowPass = topologyOf('rc-low-pass');

/** One resistor, one capacitor. */
export const rcEdge: Lesson = {
  id: 'rc-edge',
  chapter: 'networks',
  title: 'Where an RC begins to cut',
  question: 'A resistor and a capacitor cut above 1.59 kHz. What brings the edge to 500 Hz?',
  turn: 'Click R1 in the circuit and type another value; leave C1 alone.',
  see: 'The knee of the curve moves along, its steepness stays: 20 dB a decade beyond it. Why? beside the circuit has the formula with your numbers.',
  because:
    'The edge is where the capacitor’s reactance equals the resistor: 1/(2πRC). Three times the resistance, a third of the frequency; and nothing else about the curve changes.',
  topology: 'rc-low-pass',
  begin: (id, at) => sheetOfStage(id, rcEdge.title, at, rcLowPass, { f0Hz: 1592 }),
  goals: (sheet, begun) => {
    const answers = new Answers(sheet);
    return [
      near('Upper edge', answers, upperEdge, 500, 0.03),
      kept(['C1'], answers.stages[0], begun.ways[0].stages[0]),
    ];
  },
};

const LOAD = 10_000;

/** What follows draws current. */
export const rcLoad: Lesson = {
  id: 'rc-load',
  chapter: 'networks',
  title: 'What a load does',
  question:
    'The same filter feeds an input of 10 kΩ, and half of the level is gone before anything is cut. How is that made good without touching what it feeds?',
  turn: 'Lower R1 and raise C1 by as much: ten times each, say.',
  see: 'The level far below the edge comes up towards 0 dB. The edge had moved too: the load lies beside the resistor for it.',
  because:
    'What feeds and what is fed divide the level between them. With a source a tenth of the load, under 1 dB is lost; the price is a capacitor ten times as large, and more current drawn from what comes before.',
  topology: 'rc-low-pass',
  begin: (id, at) => {
    const sheet = sheetOfStage(id, rcLoad.title, at, rcLowPass, { f0Hz: 1592 });
    const [way] = sheet.ways;
    return {
      ...sheet,
      ways: [{ ...way, to: { is: 'load', name: 'Input', ohms: LOAD, farads: null } }],
    };
  },
  goals: (sheet) => {
    const answers = new Answers(sheet);
    const { to } = sheet.ways[0];
    const ohms = to.is === 'load' ? to.ohms : null;
    return [
      level('Level at 20 Hz', answers, levelAt(20), { atLeast: -1 }),
      near('Upper edge', answers, upperEdge, 1592, 0.12),
      so('The input as it is: 10 kΩ', ohms === LOAD ? '10 kΩ' : 'another', ohms === LOAD),
    ];
  },
};

/** Two sections in a row load each other. */
export const jointCost: Lesson = {
  id: 'joint',
  chapter: 'networks',
  title: 'What a joint costs',
  question:
    'Two equal RC sections in a row should cut twice as steeply at one edge. Instead the knee is soft. What does the place where they meet cost?',
  turn: 'Between the two cards is a circle: the joint. Make the second section of ten times the impedance (R2 ten times up, C2 ten times down), or put a buffer there.',
  see: 'The circle tells what each side shows the other, and the level lost there. Where the second draws little, each section does what it does alone.',
  because:
    'A stage does what it was designed for only where the next one draws next to nothing. Ten times the impedance leaves a tenth of the loss; a buffer takes all of it, for an op-amp. Steps of impedance are why passive filters of many sections end in values nobody has.',
  begin: (id, at) => {
    const sheet = sheetOfStage(id, jointCost.title, at, rcLowPass, { f0Hz: 1592 });
    const [way] = sheet.ways;
    const second = makeStage('s2', rcLowPass, { f0Hz: 1592 }, DEFAULT_PARTS, 'hand');
    return { ...sheet, ways: [{ ...way, stages: [...way.stages, second] }] };
  },
  goals: (sheet) => {
    const answers = new Answers(sheet);
    const lost = answers.jointLossDb('s1');
    return [
      so(
        'Lost behind the first section: under 0.1 dB',
        lost === null ? 'the first section is gone' : decibels(-lost, 2),
        lost !== null && lost > -0.1,
      ),
      // Alone, each is 3.01 dB down at its edge: two of them 6.02.
      level('Level at 1.59 kHz', answers, levelAt(1592), { atLeast: -6.6 }),
      level('Level at 16 kHz', answers, levelAt(15_920), { atMost: -38 }),
    ];
  },
};

/** What each order brings. */
export const orders: Lesson = {
  id: 'order',
  chapter: 'networks',
  title: 'What an order buys',
  question:
    'A tone at 3 kHz has to go down by 45 dB and music up to 1 kHz has to pass. How steep a filter does that take?',
  turn: 'In the sentence above the circuit, click the order and raise it a step at a time.',
  see: 'Each order adds 20 dB a decade far beyond the edge, and the corner becomes squarer. Count op-amps and parts as they come.',
  because:
    'Far from the edge every order is worth 6 dB an octave: three times the edge is 1.6 octaves, so five orders bring about 48 dB. Each costs parts, a Q that must hold, and delay near the edge; one asks for no more than what the job needs.',
  begin: (id, at) =>
    makeSheet({
      id,
      title: orders.title,
      at,
      ask: {
        kind: 'low-pass',
        shape: 'butterworth',
        order: 2,
        edgeHz: 1000,
        edge: 'half-power',
        gainDb: 0,
      },
    }),
  goals: (sheet) => {
    const answers = new Answers(sheet);
    return [
      level('Level at 3 kHz', answers, levelAt(3000), { atMost: -45 }),
      level('Level at 1 kHz', answers, levelAt(1000), { atLeast: -3.6 }),
    ];
  },
};

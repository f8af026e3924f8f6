import { tuned } from './tuned';

/*
 * A loop of two integrators walked from its blocks to its parts: each weight has a resistor of its own,
 * which is turned by itself.
 */

export const stateVariableLoop = tuned({
  id: 'state-variable',
  chapter: 'loops',
  title: 'A loop of two integrators, weight by weight',
  topology: 'state-variable-low-pass',
  from: { f0Hz: 500, q: 0.8, gain: -1 },
  to: { f0Hz: 1000, q: 4, gain: -2 },
  see: 'Point at a block: the parts that make its weight light up in the circuit, and the other way round. f₀ stands in both integrators, the way back from the band is 1/Q, the first block is the gain. Turn one after the other and watch which figure moves.',
});

export const twoIntegratorLoop = tuned({
  id: 'two-integrator',
  chapter: 'loops',
  title: 'The same loop, with the damping elsewhere',
  topology: 'two-integrator-low-pass',
  from: { f0Hz: 500, q: 0.8, gain: 1 },
  to: { f0Hz: 1000, q: 3, gain: 2 },
  see: 'Point at the blocks: here the first integrator loses by itself, by one resistor across it. Compare it with the loop before: the width in hertz stays where it is put while f₀ moves.',
});

export const positiveFeedback = tuned({
  id: 'positive-feedback',
  chapter: 'loops',
  title: 'One op-amp, and a Q by feedback',
  topology: 'equal-part-low-pass',
  from: { f0Hz: 1000, q: 0.6 },
  to: { f0Hz: 1000, q: 2 },
});

export const unityStage = tuned({
  id: 'unity-stage',
  chapter: 'opAmps',
  title: 'A Q from two capacitors',
  topology: 'unity-low-pass',
  from: { f0Hz: 1000, q: 0.6 },
  to: { f0Hz: 2000, q: 1.5 },
});

export const multipleFeedback = tuned({
  id: 'multiple-feedback',
  chapter: 'opAmps',
  title: 'A narrow band from one op-amp',
  topology: 'multiple-feedback-band-pass',
  from: { f0Hz: 1000, q: 2, gain: -1 },
  to: { f0Hz: 1500, q: 5, gain: -1 },
});

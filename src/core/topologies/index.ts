import { ReedError } from '@/core/errors';
import { quoted } from '@/core/text';
import { bridgedT } from './networks/bridged-t';
import { bridgedTPad } from './networks/bridged-t-pad';
import { lPad } from './networks/l-pad';
import { lcLadder } from './networks/lc-ladder';
import { leadLag } from './networks/lead-lag';
import { piPad } from './networks/pi-pad';
import { rcHighPass } from './networks/rc-high-pass';
import { rcLowPass } from './networks/rc-low-pass';
import { rcSections } from './networks/rc-sections';
import { rlHighPass } from './networks/rl-high-pass';
import { rlLowPass } from './networks/rl-low-pass';
import { rlcBandPass } from './networks/rlc-band-pass';
import { rlcHighPass } from './networks/rlc-high-pass';
import { rlcLowPass } from './networks/rlc-low-pass';
import { rlcNotch } from './networks/rlc-notch';
import { tPad } from './networks/t-pad';
import { toneControl } from './networks/tone-control';
import { twinT } from './networks/twin-t';
import { wienBand } from './networks/wien-band';
import { allPassSummed } from './several/all-pass-summed';
import { impedanceBiquadBandPass } from './several/impedance-biquad-band-pass';
import { impedanceBiquadHighPass } from './several/impedance-biquad-high-pass';
import { impedanceBiquadLowPass } from './several/impedance-biquad-low-pass';
import { impedanceBiquadNotch } from './several/impedance-biquad-notch';
import { leapfrog } from './several/leapfrog';
import { leapfrogTransconductor } from './several/leapfrog-transconductor';
import { notchWithDepth } from './several/notch-with-depth';
import { resonatorDip } from './several/resonator-dip';
import { resonatorPeak } from './several/resonator-peak';
import { stateVariableBandPass } from './several/state-variable-band-pass';
import { stateVariableHighPass } from './several/state-variable-high-pass';
import { stateVariableLowPass } from './several/state-variable-low-pass';
import { stateVariableNotch } from './several/state-variable-notch';
import { twoIntegratorBandPass } from './several/two-integrator-band-pass';
import { twoIntegratorLowPass } from './several/two-integrator-low-pass';
import { allPassFirst } from './single/all-pass-first';
import { allPassSecond } from './single/all-pass-second';
import { buffer } from './single/buffer';
import { bufferedRcHighPass } from './single/buffered-rc-high-pass';
import { bufferedRcLowPass } from './single/buffered-rc-low-pass';
import { difference } from './single/difference';
import { equalPartHighPass } from './single/equal-part-high-pass';
import { equalPartLowPass } from './single/equal-part-low-pass';
import { gainHighPass } from './single/gain-high-pass';
import { gainLowPass } from './single/gain-low-pass';
import { highShelfCut } from './single/high-shelf-cut';
import { highShelfLift } from './single/high-shelf-lift';
import { inverting } from './single/inverting';
import { invertingHighPass } from './single/inverting-high-pass';
import { invertingLowPass } from './single/inverting-low-pass';
import { lowShelfCut } from './single/low-shelf-cut';
import { lowShelfLift } from './single/low-shelf-lift';
import { multipleFeedbackBandPass } from './single/multiple-feedback-band-pass';
import { multipleFeedbackHighPass } from './single/multiple-feedback-high-pass';
import { multipleFeedbackLowPass } from './single/multiple-feedback-low-pass';
import { nonInverting } from './single/non-inverting';
import { positiveFeedbackBandPass } from './single/positive-feedback-band-pass';
import { shapedGainBoth } from './single/shaped-gain-both';
import { shapedGainBottom } from './single/shaped-gain-bottom';
import { shapedGainTop } from './single/shaped-gain-top';
import { summing } from './single/summing';
import { thirdOrder } from './single/third-order';
import { tiltBright } from './single/tilt-bright';
import { tiltDark } from './single/tilt-dark';
import { twinTNotch } from './single/twin-t-notch';
import { twinTNotchBootstrapped } from './single/twin-t-notch-bootstrapped';
import { unityHighPass } from './single/unity-high-pass';
import { unityLowPass } from './single/unity-low-pass';
import type { Topology } from './topology';

const PASSES = ['low-pass', 'high-pass'] as const;
const from = (least: number, greatest: number, step = 1) =>
  Array.from({ length: Math.floor((greatest - least) / step) + 1 }, (_, k) => least + k * step);

/** Circuits of one drawing and one set of equations in several orders. */
const FAMILIES: readonly Topology[] = [
  ...PASSES.flatMap((kind) => [
    ...([2, 3, 4] as const).map((order) => rcSections(kind, order)),
    thirdOrder(kind),
    ...from(2, 10).map((order) => lcLadder({ kind, order, terminated: 'both', zeros: false })),
    ...from(2, 10).map((order) => lcLadder({ kind, order, terminated: 'load', zeros: false })),
    ...from(3, 9, 2).map((order) => lcLadder({ kind, order, terminated: 'both', zeros: true })),
  ]),
  ...from(3, 9).map((order) => leapfrog(order, false)),
  ...from(3, 9, 2).map((order) => leapfrog(order, true)),
  ...from(3, 9).map((order) => leapfrogTransconductor(order)),
];

/** Every topology. A new one is one file and one line here; the conformance test does the rest. */
export const TOPOLOGIES: readonly Topology[] = [
  rcLowPass,
  rcHighPass,
  rlLowPass,
  rlHighPass,
  rlcLowPass,
  rlcHighPass,
  rlcBandPass,
  rlcNotch,
  wienBand,
  bridgedT,
  twinT,
  leadLag,
  lPad,
  tPad,
  piPad,
  bridgedTPad,
  toneControl,
  buffer,
  inverting,
  nonInverting,
  summing,
  difference,
  shapedGainTop,
  shapedGainBottom,
  shapedGainBoth,
  bufferedRcLowPass,
  bufferedRcHighPass,
  invertingLowPass,
  invertingHighPass,
  unityLowPass,
  unityHighPass,
  equalPartLowPass,
  equalPartHighPass,
  gainLowPass,
  gainHighPass,
  multipleFeedbackLowPass,
  multipleFeedbackHighPass,
  multipleFeedbackBandPass,
  positiveFeedbackBandPass,
  twinTNotch,
  twinTNotchBootstrapped,
  allPassFirst,
  allPassSecond,
  lowShelfLift,
  lowShelfCut,
  highShelfLift,
  highShelfCut,
  tiltBright,
  tiltDark,
  stateVariableLowPass,
  stateVariableHighPass,
  stateVariableBandPass,
  stateVariableNotch,
  twoIntegratorLowPass,
  twoIntegratorBandPass,
  impedanceBiquadLowPass,
  impedanceBiquadHighPass,
  impedanceBiquadBandPass,
  impedanceBiquadNotch,
  notchWithDepth,
  allPassSummed,
  resonatorPeak,
  resonatorDip,
  ...FAMILIES,
];

const BY_ID = new Map(TOPOLOGIES.map((t) => [t.id, t]));

export const hasTopology = (id: string): boolean => BY_ID.has(id);

/** @throws ReedError `design` naming what was asked for; `reed topologies` lists what there is */
export function topologyOf(id: string): Topology {
  const topology = BY_ID.get(id);
  if (topology) return topology;
  throw new ReedError(
    'design',
    `No topology is called ${quoted(id)}; “reed topologies” lists those there are.`,
  );
}

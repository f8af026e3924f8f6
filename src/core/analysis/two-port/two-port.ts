import { ReedError } from '@/core/errors';
import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import { acResponse } from '../ac/ac';
import type { ComplexTrace } from '../ac/complex';
import { findZero } from '@/core/numeric/root';

/** A circuit with every independent source set to zero. */
function silenced(circuit: Circuit): Part[] {
  return circuit.parts.map((part) => {
    if (part.kind === 'voltage-source') return { ...part, acVolts: 0 };
    if (part.kind === 'current-source') return { ...part, acAmps: 0 };
    return part;
  });
}

/** Impedance between a net and ground, sources silent: volts for a test current of 1 A. */
export function impedanceAt(
  circuit: Circuit,
  net: string,
  frequenciesHz: ArrayLike<number>,
): ComplexTrace {
  const probe: Part = {
    id: '@test',
    kind: 'current-source',
    from: circuit.ground,
    to: net,
    acAmps: 1,
  };
  return acResponse(
    { ...circuit, parts: [...silenced(circuit), probe] },
    { frequenciesHz, probes: [net] },
  ).probes[net];
}

export interface JointView {
  /** Impedances looking back and looking ahead, ohms. */
  source: ComplexTrace;
  load: ComplexTrace;
  /** 20 log |Zl / (Zs + Zl)|, dB. */
  lossDb: Float64Array;
}

/** Both sides of a joint, each given as a circuit of its own that meets the other at `net`. */
export function jointView(
  before: Circuit,
  after: Circuit,
  net: string,
  frequenciesHz: ArrayLike<number>,
): JointView {
  const source = impedanceAt(before, net, frequenciesHz);
  const load = impedanceAt(after, net, frequenciesHz);
  const lossDb = source.re.map(
    (re, k) =>
      20 *
      Math.log10(
        Math.hypot(load.re[k], load.im[k]) / Math.hypot(re + load.re[k], source.im[k] + load.im[k]),
      ),
  );
  return { source, load, lossDb };
}

export interface LoopView {
  frequenciesHz: Float64Array;
  /** Return ratio T = A(s) beta(s). */
  loopGain: ComplexTrace;
  /** |1 / beta|, dB: what the op-amp's input noise is multiplied by. */
  noiseGainDb: Float64Array;
  /** Where |T| = 1, and 180 degrees plus the phase of T there; null when it never crosses. */
  crossoverHz: number | null;
  phaseMarginDegrees: number | null;
}

/**
 * The feedback loop around one op-amp: its output is replaced by a source of 1 V behind the output
 * resistance, and the voltage that comes back to its inputs is read (H. W. Bode's return ratio).
 *
 * @throws ReedError `circuit` when the part is no op-amp, or is ideal (its loop gain is infinite)
 */
export function loopView(
  circuit: Circuit,
  opAmpId: string,
  frequenciesHz: ArrayLike<number>,
): LoopView {
  const opAmp = circuit.parts.find(
    (p): p is PartOf<'op-amp'> => p.id === opAmpId && p.kind === 'op-amp',
  );
  if (!opAmp)
    throw new ReedError('circuit', `The circuit has no op-amp “${opAmpId}”.`, { part: opAmpId });
  const { model } = opAmp;
  if (model === 'ideal')
    throw new ReedError(
      'circuit',
      `“${opAmpId}” is ideal: its loop gain has no end. Give it a gain-bandwidth.`,
      { part: opAmpId },
    );
  const inside = model.outputOhms ? '@inside' : opAmp.out;
  const parts = silenced(circuit).filter((p) => p.id !== opAmpId);
  parts.push({
    id: '@drive',
    kind: 'voltage-source',
    plus: inside,
    minus: circuit.ground,
    acVolts: 1,
  });
  if (model.outputOhms)
    parts.push({ id: '@ro', kind: 'resistor', a: inside, b: opAmp.out, ohms: model.outputOhms });
  if (model.inputOhms)
    parts.push({
      id: '@ri',
      kind: 'resistor',
      a: opAmp.inPlus,
      b: opAmp.inMinus,
      ohms: model.inputOhms,
    });
  if (model.inputFarads)
    parts.push({
      id: '@ci',
      kind: 'capacitor',
      a: opAmp.inPlus,
      b: opAmp.inMinus,
      farads: model.inputFarads,
    });
  const opened: Circuit = { ...circuit, parts };
  const open = 10 ** (model.dcGainDb / 20);
  const view = (hz: Float64Array): { loop: ComplexTrace; beta: ComplexTrace } => {
    const { probes } = acResponse(opened, {
      frequenciesHz: hz,
      probes: [opAmp.inPlus, opAmp.inMinus],
    });
    const [p, m] = [probes[opAmp.inPlus], probes[opAmp.inMinus]];
    const beta = { re: m.re.map((x, k) => x - p.re[k]), im: m.im.map((x, k) => x - p.im[k]) };
    const loop = { re: new Float64Array(hz.length), im: new Float64Array(hz.length) };
    hz.forEach((f, k) => {
      // 1/A = (1/A0 + j f/GBW) (1 + j f/f2)
      const y = f / model.gainBandwidthHz;
      const z = model.secondPoleHz ? f / model.secondPoleHz : 0;
      const [ir, ii] = [1 / open - y * z, y + z / open];
      const norm = ir * ir + ii * ii;
      loop.re[k] = (beta.re[k] * ir + beta.im[k] * ii) / norm;
      loop.im[k] = (beta.im[k] * ir - beta.re[k] * ii) / norm;
    });
    return { loop, beta };
  };
  const hz = Float64Array.from(frequenciesHz);
  const { loop, beta } = view(hz);
  const size = (f: number) => {
    const { loop: t } = view(Float64Array.of(f));
    return Math.log(Math.hypot(t.re[0], t.im[0]));
  };
  let crossoverHz: number | null = null;
  for (let k = hz.length - 2; k >= 0 && crossoverHz === null; k--) {
    const [a, b] = [Math.hypot(loop.re[k], loop.im[k]), Math.hypot(loop.re[k + 1], loop.im[k + 1])];
    if (a >= 1 && b < 1)
      crossoverHz = Math.exp(
        findZero((u) => size(Math.exp(u)), Math.log(hz[k]), Math.log(hz[k + 1]), 1e-11),
      );
  }
  let phaseMarginDegrees: number | null = null;
  if (crossoverHz !== null) {
    const { loop: t } = view(Float64Array.of(crossoverHz));
    const phase = (Math.atan2(t.im[0], t.re[0]) * 180) / Math.PI;
    phaseMarginDegrees = phase > 0 ? phase - 180 : phase + 180;
  }
  return {
    frequenciesHz: hz,
    loopGain: loop,
    noiseGainDb: beta.re.map((re, k) => -20 * Math.log10(Math.hypot(re, beta.im[k]))),
    crossoverHz,
    phaseMarginDegrees,
  };
}

import { c, r } from './parts';

/**
 * A circuit for each kind of device in which every value it has bears on the net that is looked at;
 * `still` names values that a small signal does not see.
 */
interface Sample {
  circuit: unknown;
  net: string;
  still?: readonly string[];
}

const source = {
  id: 'V',
  kind: 'voltage-source',
  plus: 'in',
  minus: '0',
  acVolts: 1,
  dcVolts: 1.5,
};
const supply = { id: 'VS', kind: 'voltage-source', plus: 'vcc', minus: '0', dcVolts: 12 };
const circuit = (...parts: unknown[]) => ({
  format: 'jaunty-reed/circuit',
  version: 1,
  ground: '0',
  parts,
});

const opAmp = (model: object) =>
  circuit(
    source,
    r('R1', 'in', 'm', 1e4),
    r('R2', 'm', 'out', 1e5),
    r('R3', 'in', 'p', 1e4),
    c('C', 'p', '0', 1e-9),
    r('RL', 'out', '0', 1000),
    { id: 'A', kind: 'op-amp', inPlus: 'p', inMinus: 'm', out: 'out', model },
  );
const real = {
  gainBandwidthHz: 1e6,
  dcGainDb: 80,
  outputOhms: 80,
  inputOhms: 1e6,
  inputFarads: 2e-12,
  inputVoltageNoise: 2e-8,
  inputCurrentNoise: 1e-12,
  voltageNoiseCornerHz: 200,
  currentNoiseCornerHz: 300,
};
const ONLY_NOISE = ['inputVoltageNoise', 'inputCurrentNoise'].map((name) => `A ${name}`);

export const EVERY_KIND: Record<string, Sample> = {
  'resistors and a capacitor': {
    circuit: circuit(source, r('R1', 'in', 'out', 1e4), {
      ...c('C', 'out', '0', 1e-8),
      esrOhms: 30,
    }),
    net: 'out',
  },
  'coupled coils': {
    circuit: circuit(
      source,
      r('R1', 'in', 'a', 100),
      { id: 'L1', kind: 'inductor', a: 'a', b: '0', henries: 0.1, dcrOhms: 8 },
      { id: 'L2', kind: 'inductor', a: 'out', b: '0', henries: 0.2, dcrOhms: 12 },
      { id: 'K', kind: 'coupling', inductors: ['L1', 'L2'], k: 0.8 },
      r('R2', 'out', '0', 2000),
    ),
    net: 'out',
  },
  potentiometer: {
    circuit: circuit(
      source,
      {
        id: 'P',
        kind: 'potentiometer',
        a: 'in',
        wiper: 'out',
        b: '0',
        ohms: 1e4,
        turn: 0.3,
        taper: 'audio',
        mismatch: 0.05,
      },
      r('R', 'out', '0', 5000),
      c('C', 'out', '0', 1e-8),
    ),
    net: 'out',
  },
  'potentiometer at its stop': {
    circuit: circuit(
      source,
      r('R1', 'in', 'a', 1000),
      {
        id: 'P',
        kind: 'potentiometer',
        a: 'a',
        wiper: 'a',
        b: 'out',
        ohms: 1e4,
        turn: 0.9999,
        taper: 'linear',
        endOhms: 5,
      },
      r('R', 'out', '0', 5000),
    ),
    net: 'out',
  },
  'op-amp': { circuit: opAmp(real), net: 'out', still: ONLY_NOISE },
  'op-amp with a second pole': {
    circuit: opAmp({ ...real, secondPoleHz: 3e6, offsetVolts: 1e-3, biasAmps: 1e-7 }),
    net: 'out',
    still: ONLY_NOISE,
  },
  'op-amp with limits': {
    circuit: opAmp({
      ...real,
      offsetVolts: 1e-3,
      biasAmps: 1e-7,
      supply: { plusVolts: 15, minusVolts: -15 },
      headroomVolts: 1.5,
      outputAmps: 0.02,
    }),
    net: 'out',
    still: ONLY_NOISE,
  },
  transconductor: {
    circuit: circuit(
      source,
      {
        id: 'G',
        kind: 'transconductor',
        from: '0',
        to: 'out',
        inPlus: 'in',
        inMinus: 'out',
        siemens: 1e-4,
      },
      c('C', 'out', '0', 1e-8),
      r('R', 'out', '0', 1e5),
    ),
    net: 'out',
  },
  'voltage amplifier': {
    circuit: circuit(
      source,
      {
        id: 'E',
        kind: 'voltage-amplifier',
        plus: 'x',
        minus: '0',
        inPlus: 'in',
        inMinus: '0',
        gain: 2,
      },
      r('R', 'x', 'out', 1e4),
      c('C', 'out', '0', 1e-9),
    ),
    net: 'out',
  },
  ota: {
    circuit: circuit(
      source,
      r('R1', 'in', 'p', 1e5),
      r('R2', 'p', '0', 1000),
      {
        id: 'O',
        kind: 'ota',
        inPlus: 'p',
        inMinus: '0',
        out: 'out',
        biasAmps: 2e-4,
        diodeAmps: 1e-3,
      },
      r('R3', 'out', '0', 1e4),
      c('C', 'out', '0', 1e-9),
    ),
    net: 'out',
  },
  'ota with a bias net': {
    circuit: circuit(
      source,
      r('R1', 'in', 'p', 1e5),
      r('R2', 'p', '0', 1000),
      { id: 'VB', kind: 'voltage-source', plus: 'bias', minus: '0', dcVolts: 3 },
      {
        id: 'O',
        kind: 'ota',
        inPlus: 'p',
        inMinus: '0',
        out: 'out',
        bias: 'bias',
        biasSiemens: 1e-4,
      },
      r('R3', 'out', '0', 1e4),
      c('C', 'out', '0', 1e-9),
    ),
    net: 'out',
  },
  diode: {
    circuit: circuit(source, r('R', 'in', 'out', 1e4), {
      id: 'D',
      kind: 'diode',
      anode: 'out',
      cathode: '0',
      model: {
        saturationAmps: 2e-9,
        emissionCoefficient: 1.8,
        junctionFarads: 4e-12,
        transitSeconds: 5e-7,
      },
    }),
    net: 'out',
  },
  transistor: {
    circuit: circuit(
      source,
      supply,
      r('RB', 'in', 'b', 4.7e4),
      r('RC', 'vcc', 'out', 4700),
      r('RE', 'e', '0', 1000),
      {
        id: 'Q',
        kind: 'transistor',
        collector: 'out',
        base: 'b',
        emitter: 'e',
        model: {
          polarity: 'npn',
          saturationAmps: 1e-14,
          betaForward: 150,
          betaReverse: 2,
          earlyVolts: 80,
          baseEmitterFarads: 2e-11,
          baseCollectorFarads: 8e-12,
          transitSeconds: 4e-10,
        },
      },
    ),
    net: 'out',
  },
  jfet: {
    circuit: circuit(
      source,
      supply,
      c('CG', 'in', 'g', 1e-8),
      r('RG', 'g', '0', 1e6),
      r('RD', 'vcc', 'out', 2200),
      r('RS', 's', '0', 470),
      {
        id: 'J',
        kind: 'jfet',
        drain: 'out',
        gate: 'g',
        source: 's',
        model: {
          polarity: 'n',
          saturatedDrainAmps: 4e-3,
          pinchOffVolts: 2,
          lambdaPerVolt: 0.01,
          gateSourceFarads: 4e-12,
          gateDrainFarads: 4e-12,
        },
      },
    ),
    net: 'out',
  },
  photocell: {
    circuit: circuit(
      source,
      supply,
      r('RL', 'vcc', 'l', 1500),
      r('R', 'in', 'out', 1e4),
      c('C', 'out', '0', 1e-9),
      {
        id: 'P',
        kind: 'photocell',
        a: 'out',
        b: '0',
        lampPlus: 'l',
        lampMinus: '0',
        curve: [
          { amps: 1e-3, ohms: 1e5 },
          { amps: 1e-2, ohms: 1e3 },
        ],
      },
    ),
    net: 'out',
  },
  switch: {
    circuit: circuit(
      source,
      { id: 'S', kind: 'switch', a: 'in', b: 'out', closed: true, closedOhms: 40 },
      r('R', 'out', '0', 1000),
      c('C', 'out', '0', 1e-8),
    ),
    net: 'out',
  },
};

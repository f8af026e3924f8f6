import type { OpAmpModel } from './devices/op-amp-model';

/** Op-amps described by what they are. Figures are typical of their class and meant to be edited. */
export interface NamedOpAmp {
  name: string;
  model: 'ideal' | OpAmpModel;
}

export const OP_AMPS: readonly NamedOpAmp[] = [
  {
    name: 'quiet bipolar, 10 MHz',
    model: {
      gainBandwidthHz: 10e6,
      dcGainDb: 110,
      outputOhms: 40,
      inputFarads: 4e-12,
      offsetVolts: 0.5e-3,
      biasAmps: 200e-9,
      inputVoltageNoise: 5e-9,
      inputCurrentNoise: 0.7e-12,
      slewVoltsPerSecond: 9e6,
    },
  },
  {
    name: 'FET-input, 3 MHz',
    model: {
      gainBandwidthHz: 3e6,
      dcGainDb: 106,
      outputOhms: 100,
      inputFarads: 6e-12,
      offsetVolts: 3e-3,
      biasAmps: 30e-12,
      inputVoltageNoise: 18e-9,
      inputCurrentNoise: 1e-14,
      slewVoltsPerSecond: 13e6,
    },
  },
  {
    name: 'low-power, 1 MHz',
    model: {
      gainBandwidthHz: 1e6,
      dcGainDb: 100,
      outputOhms: 200,
      inputFarads: 3e-12,
      offsetVolts: 2e-3,
      biasAmps: 20e-9,
      inputVoltageNoise: 40e-9,
      inputCurrentNoise: 0.2e-12,
      slewVoltsPerSecond: 0.5e6,
    },
  },
  {
    name: 'micropower, 100 kHz',
    model: {
      gainBandwidthHz: 1e5,
      dcGainDb: 98,
      outputOhms: 1000,
      inputFarads: 3e-12,
      offsetVolts: 2e-3,
      biasAmps: 1e-9,
      inputVoltageNoise: 60e-9,
      inputCurrentNoise: 0.05e-12,
      slewVoltsPerSecond: 0.04e6,
    },
  },
  {
    name: 'fast bipolar for gains from 5, 60 MHz',
    model: {
      gainBandwidthHz: 60e6,
      dcGainDb: 112,
      outputOhms: 40,
      inputFarads: 5e-12,
      offsetVolts: 0.5e-3,
      biasAmps: 400e-9,
      inputVoltageNoise: 3e-9,
      inputCurrentNoise: 1e-12,
      slewVoltsPerSecond: 20e6,
      secondPoleHz: 15e6,
      leastNoiseGain: 5,
    },
  },
  { name: 'ideal', model: 'ideal' },
];

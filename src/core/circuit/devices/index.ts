import type { Device } from '../device';
import { capacitor } from './capacitor';
import { coupling } from './coupling';
import { currentSource } from './current-source';
import { inductor } from './inductor';
import { opAmp } from './op-amp';
import { diode } from './diode';
import { jfet } from './jfet';
import { ota } from './ota';
import { photocell } from './photocell';
import { potentiometer } from './potentiometer';
import { resistor } from './resistor';
import { transconductor } from './transconductor';
import { switchDevice } from './switch';
import { transistor } from './transistor';
import { voltageAmplifier } from './voltage-amplifier';
import { voltageSource } from './voltage-source';

/** Every kind of part. A new kind is one file and one line here. */
export const DEVICES = [
  resistor,
  capacitor,
  inductor,
  coupling,
  voltageSource,
  currentSource,
  voltageAmplifier,
  transconductor,
  opAmp,
  diode,
  transistor,
  jfet,
  ota,
  potentiometer,
  photocell,
  switchDevice,
] as const;

/** The device of a part; parts have been checked against their schema, so the kind is known. */
export function deviceOf(kind: string): Device {
  const device = DEVICES.find((d) => d.kind === kind);
  if (!device) throw new RangeError(`No device is called “${kind}”.`);
  return device;
}

import { otaCascade } from '@/core/cells/ota-cascade';
import { nineVoltBox } from '@/core/cells/nine-volt-box';
import { photocellGate } from '@/core/cells/photocell-gate';
import { treadle } from '@/core/cells/treadle';
import type { Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';

/** The keyboard maker’s voice: four transconductors, a volt an octave over nearly nine octaves. */
export function keyboardVoice(at: string): Sheet {
  const sheet = voiceSheet({
    id: 'demo-voice',
    demo: 'voice',
    title: 'Low-pass voice for the keyboard',
    at,
    cell: otaCascade,
    lowHz: 30,
    highHz: 12_000,
    source: { name: 'Oscillator', ohms: 1000, volts: 5 },
    load: { name: 'Amplifier in', ohms: 47_000 },
  });
  return { ...sheet, controls: sheet.controls.map((c, k) => ({ ...c, key: 'qr'[k] })) };
}

/** The drone box’s gate: two cells in the light of one lamp, which a plucked voltage drives. */
export function pluckedGate(at: string): Sheet {
  const sheet = voiceSheet({
    id: 'demo-gate',
    demo: 'gate',
    title: 'Plucked gate for the drone box',
    at,
    cell: photocellGate,
    lowHz: 60,
    highHz: 12_000,
    source: { name: 'Drone box', ohms: 600, volts: 2 },
    load: { name: 'Mixer line in', ohms: 22_000 },
  });
  return { ...sheet, controls: sheet.controls.map((c) => ({ ...c, key: 'q' })) };
}

/** The keyboard maker’s pedal: a coil, two transistors and a treadle. */
export function treadlePedal(at: string): Sheet {
  const sheet = voiceSheet({
    id: 'demo-pedal',
    demo: 'pedal',
    title: 'Treadle pedal',
    at,
    cell: treadle,
    ...treadle.usual,
    source: { name: 'Keyboard', ohms: 1000, volts: 0.05 },
    load: { name: 'Amplifier in', ohms: 1e6 },
  });
  return { ...sheet, controls: sheet.controls.map((c) => ({ ...c, key: 'q' })) };
}

/** A box for the drone: two diodes, one op-amp, one battery. */
export function nineVoltDrone(at: string): Sheet {
  const sheet = voiceSheet({
    id: 'demo-box',
    demo: 'box',
    title: 'Nine-volt box for the drone',
    at,
    cell: nineVoltBox,
    ...nineVoltBox.usual,
    source: { name: 'Drone box', ohms: 600, volts: 0.3 },
    load: { name: 'Mixer line in', ohms: 22_000 },
    supply: { is: 'single', volts: 9, ohms: 10e3, farads: 100e-6 },
  });
  return { ...sheet, controls: sheet.controls.map((c, k) => ({ ...c, key: 'qr'[k] })) };
}

import { otaCascade } from '@/core/cells/ota-cascade';
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

import type { QuantityKind } from '@/core/quantity/kinds';
import type { Slot } from '@/core/slots';

/** A number of a slot that can be asked otherwise. */
export interface SlotField {
  name: string;
  label: string;
  kind: QuantityKind;
}

const HZ = (name = 'hz', label = 'Frequency'): SlotField => ({ name, label, kind: 'hertz' });
const OHMS = (name: string, label: string): SlotField => ({ name, label, kind: 'ohms' });
const HUMP: SlotField[] = [
  HZ('hz', 'Middle of the hump'),
  { name: 'downDb', label: 'Down by', kind: 'decibels' },
  { name: 'octaves', label: 'Width, octaves', kind: 'ratio' },
];

/** What can be asked of each kind of slot, by its name in the document. */
export function fieldsOf(slot: Slot): SlotField[] {
  switch (slot.is) {
    case 'section':
      return [
        ...(slot.pass === 'band'
          ? [HZ('lowerHz', 'Lower frequency'), HZ('upperHz', 'Upper frequency')]
          : [HZ()]),
        OHMS('ohms', 'Into'),
      ];
    case 'pad':
      return [{ name: 'downDb', label: 'Down by', kind: 'decibels' }, OHMS('ohms', 'Into')];
    case 'flatten-coil':
      return [
        OHMS('reOhms', 'Voice coil'),
        { name: 'leHenries', label: 'Its inductance', kind: 'henries' },
      ];
    case 'flatten-peak':
      return [
        OHMS('reOhms', 'Voice coil'),
        HZ('hz', 'Resonance'),
        { name: 'qms', label: 'Mechanical Q', kind: 'ratio' },
        { name: 'qes', label: 'Electrical Q', kind: 'ratio' },
      ];
    case 'trap-in-line':
      return [...HUMP, OHMS('loadOhms', 'Loaded with')];
    case 'trap-across':
      return [...HUMP, OHMS('sourceOhms', 'Driven from')];
    case 'part':
      return [];
  }
}

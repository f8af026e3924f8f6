import type { DriverEntry } from '@/core/library/driver';
import type { QuantityKind } from '@/core/quantity/kinds';

type Model = DriverEntry['model'];

/** A figure of a unit as it is asked for: in the unit of its field, or times a factor of an SI one. */
export interface UnitFigure {
  name: keyof Model;
  label: string;
  kind: QuantityKind;
  /** What is printed behind a plain number. */
  unit?: string;
  about: string;
}

/** The figures of a data sheet, in the order that they are printed there. */
export const FIGURES: readonly UnitFigure[] = [
  { name: 'fsHz', label: 'Fs', kind: 'hertz', about: 'Resonance in free air' },
  { name: 'qms', label: 'Qms', kind: 'ratio', about: 'Q by mechanical losses' },
  { name: 'qes', label: 'Qes', kind: 'ratio', about: 'Q by electrical losses' },
  {
    name: 'vasLitres',
    label: 'Vas',
    kind: 'ratio',
    unit: 'l',
    about: 'Air as stiff as its hanging',
  },
  { name: 'reOhms', label: 'Re', kind: 'ohms', about: 'Resistance of the voice coil' },
  { name: 'leHenries', label: 'Le', kind: 'henries', about: 'Inductance of the voice coil' },
  {
    name: 'sdSquareCentimetres',
    label: 'Sd',
    kind: 'ratio',
    unit: 'cm²',
    about: 'Area of the cone',
  },
  {
    name: 'xmaxMillimetres',
    label: 'Xmax',
    kind: 'ratio',
    unit: 'mm',
    about: 'How far it moves before it bends the sound',
  },
  {
    name: 'powerWatts',
    label: 'Power',
    kind: 'ratio',
    unit: 'W',
    about: 'Long-term power it bears',
  },
];

/** What a new unit begins with: a small bass unit. */
export const NEW_MODEL: Model = {
  fsHz: 45,
  qms: 4,
  qes: 0.45,
  vasLitres: 20,
  reOhms: 5.6,
  leHenries: 0.5e-3,
  sdSquareCentimetres: 130,
  mounting: { kind: 'closed', litres: 12 },
  directivity: 'piston',
};

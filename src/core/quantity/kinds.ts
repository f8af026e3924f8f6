/** The kinds of number the product reads and prints. Values inside are always SI. */
export type QuantityKind =
  | 'ohms'
  | 'farads'
  | 'henries'
  | 'hertz'
  | 'volts'
  | 'amps'
  | 'seconds'
  | 'siemens'
  | 'decibels'
  | 'degrees'
  | 'slope'
  | 'ratio';

export interface QuantityInfo {
  /** How the kind is called in a sentence. */
  noun: string;
  /** What is printed after the number. */
  symbol: string;
  /** Spellings of the unit accepted after a number, longest first; small letters will do. */
  units: readonly string[];
  /** Letters of the unit that may stand in place of the decimal mark: 4R7, 3V3. */
  marks?: string;
  example: string;
  /** Whether SI prefixes are used when printing. */
  prefixed: boolean;
}

export const QUANTITIES: Record<QuantityKind, QuantityInfo> = {
  ohms: {
    noun: 'a resistance',
    symbol: 'Ω',
    units: ['ohms', 'ohm', 'Ω', 'Ω', 'R'],
    marks: 'RrΩΩ',
    example: '4k7, 4.7k or 4700',
    prefixed: true,
  },
  farads: {
    noun: 'a capacitance',
    symbol: 'F',
    units: ['farads', 'farad', 'F'],
    marks: 'F',
    example: '22n, 0.47u or 4n7',
    prefixed: true,
  },
  henries: {
    noun: 'an inductance',
    symbol: 'H',
    units: ['henries', 'henry', 'H'],
    marks: 'Hh',
    example: '1m8 or 470u',
    prefixed: true,
  },
  hertz: {
    noun: 'a frequency',
    symbol: 'Hz',
    units: ['hertz', 'Hz'],
    example: '3.4k or 3k4',
    prefixed: true,
  },
  volts: {
    noun: 'a voltage',
    symbol: 'V',
    units: ['volts', 'volt', 'V'],
    marks: 'Vv',
    example: '1.2 or 1V2',
    prefixed: true,
  },
  amps: {
    noun: 'a current',
    symbol: 'A',
    units: ['amps', 'amp', 'A'],
    marks: 'Aa',
    example: '20u or 1m5',
    prefixed: true,
  },
  seconds: {
    noun: 'a time',
    symbol: 's',
    units: ['seconds', 's'],
    marks: 's',
    example: '1m5 or 20u',
    prefixed: true,
  },
  siemens: {
    noun: 'a conductance',
    symbol: 'S',
    units: ['siemens', 'S'],
    marks: 'S',
    example: '220u',
    prefixed: true,
  },
  decibels: { noun: 'a level', symbol: 'dB', units: ['dB'], example: '-3 or 0.5', prefixed: false },
  degrees: {
    noun: 'an angle',
    symbol: '°',
    units: ['degrees', 'deg', '°'],
    example: '-45',
    prefixed: false,
  },
  slope: {
    noun: 'a slope',
    symbol: 'dB/oct',
    units: ['dB/octave', 'dB/oct', 'dB'],
    example: '-12',
    prefixed: false,
  },
  ratio: { noun: 'a number', symbol: '', units: [], example: '0.707', prefixed: false },
};

import { makeCircuit } from '@/core/circuit/schema';
import { meetingIn } from '../compare';
import { orientationOf } from './orientation';
import { restChecks } from './rest-checks';

const SUPPLY = { is: 'single', volts: 9, ohms: 10e3, farads: 100e-6 } as const;

const SILICON = {
  saturationAmps: 1e-9,
  emissionCoefficient: 1.8,
  junctionFarads: 0,
  transitSeconds: 0,
};

/** A follower about half of 9 V, coupled in and out; a diode across it, and a small capacitor. */
const CIRCUIT = makeCircuit([
  { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
  { id: 'CI', kind: 'capacitor', a: 'in', b: 'x', farads: 10e-6 },
  { id: 'R1', kind: 'resistor', a: 'x', b: 'half', ohms: 100e3 },
  { id: 'reference.upper', kind: 'resistor', a: 'half', b: '0', ohms: 10e3 },
  { id: 'reference.lower', kind: 'resistor', a: 'half', b: '0', ohms: 10e3 },
  { id: 'reference.bypass', kind: 'capacitor', a: 'half', b: '0', farads: 100e-6 },
  { id: 'A1', kind: 'op-amp', inPlus: 'x', inMinus: 'y', out: 'y', model: 'ideal' },
  { id: 'C2', kind: 'capacitor', a: 'y', b: 'half', farads: 1e-9 },
  { id: 'CO', kind: 'capacitor', a: 'y', b: 'out', farads: 22e-6 },
  { id: 'R2', kind: 'resistor', a: 'out', b: '0', ohms: 100e3 },
  { id: 'D1', kind: 'diode', anode: 'out', cathode: '0', model: SILICON },
  { id: 'CX', kind: 'capacitor', a: 'out', b: '0', farads: 2.2e-6 },
]);
const MEETING = meetingIn(CIRCUIT, new Set(['V1']));
const lying = (supply?: typeof SUPPLY) =>
  orientationOf(CIRCUIT, (id) => id !== 'V1', MEETING, { mark: 'point', supply });
const plain = (text: string | undefined) => (text ?? '').replace(/\u00a0/g, ' ');

test('the plus of an electrolytic is where half the supply stands; small ones have no side', () => {
  const told = plain(lying(SUPPLY).capacitors).split('; ');
  const of = (id: string) => told.find((line) => line.startsWith(id));
  expect(of('CI')).toBe('CI, if electrolytic: plus where CI, R1 and A1 meet, 4.5 V across it');
  expect(of('CO')).toBe('CO, if electrolytic: plus where A1, C2 and CO meet, 4.5 V across it');
  expect(of('CX')).toContain('nothing stands across it');
  expect(of('C2')).toBeUndefined();
  expect(of('reference.bypass')).toContain('4.5 V across it');
});

test('without such a supply nothing stands across them; rings are told by the drawing', () => {
  expect(plain(lying().capacitors)).not.toContain('plus');
  expect(lying().diodes).toBe('D1: ring at common');
});

test('an output that rests at half the supply is expected there, against common', () => {
  const [{ expects, detail }] = restChecks(CIRCUIT, undefined, SUPPLY);
  expect(expects!.least).toBeGreaterThan(4);
  expect(expects!.most).toBeLessThan(5);
  expect(detail).toContain('Half the supply is counted in');
  const [split] = restChecks(CIRCUIT);
  expect(Math.abs(split.expects!.most)).toBeLessThan(0.1);
});

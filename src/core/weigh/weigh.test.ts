import { askSchema } from '@/core/design/ask';
import { candidatesOf } from './candidates';
import { DEFAULT_PRICES } from './prices';
import { weighOne, type WeighRow } from './weigh';

const ask = (fields: object) => askSchema.parse(fields);
const row = (fields: object): WeighRow => {
  const wanted = ask(fields);
  const weighed = weighOne({
    id: 'x',
    shape: wanted.shape,
    order: wanted.order ?? 1,
    topology: wanted.topology ?? '',
    ask: wanted,
  });
  if ('refusal' in weighed) throw new Error(weighed.refusal);
  return weighed;
};

const SECOND = { kind: 'low-pass', order: 2, edgeHz: 1000, topology: 'unity-low-pass' };

test('a second-order row says what is known of it in closed form', () => {
  const r = row(SECOND);
  expect(r.counts).toEqual({
    resistor: 2,
    capacitor: 2,
    inductor: 0,
    'op-amp': 1,
    transconductor: 0,
  });
  expect(r.cost).toBeCloseTo(
    2 * DEFAULT_PRICES.resistor + 2 * DEFAULT_PRICES.capacitor + DEFAULT_PRICES['op-amp'],
    12,
  );
  expect(r.worstQ).toBeCloseTo(Math.SQRT1_2, 9);
  expect(r.rippleDb).toBeCloseTo(10 * Math.log10(2), 4);
  expect(r.attenuationDb).toBeCloseTo(10 * Math.log10(17), 4);
  // Delay of the flat second-order low-pass: sqrt(2)(1+x^2)/(1+x^4)/w0, highest at x = 0.6436.
  const delay = (x: number) => (Math.SQRT2 * (1 + x * x)) / (1 + x ** 4) / (2 * Math.PI * 1000);
  expect(r.delayVariationSeconds! / (delay(0.6436) - delay(0.02))).toBeCloseTo(1, 1);
  expect(r.yield).toBe(1);
});

test('higher Q needs more bandwidth, moves more with its parts and yields fewer boards', () => {
  const calm = row({ ...SECOND, shape: 'bessel' });
  const lively = row({ ...SECOND, order: 6, shape: 'chebyshev', rippleDb: 2 });
  expect(lively.gainBandwidthHz!).toBeGreaterThan(5 * calm.gainBandwidthHz!);
  expect(lively.sensitivity.dbPerPercent).toBeGreaterThan(calm.sensitivity.dbPerPercent);
  expect(lively.yield).toBeLessThan(calm.yield);
});

test('a ladder between two resistors is the calmest of its shape', () => {
  // At the end of the ripple: further out every form falls as steeply as the others.
  const shape = {
    kind: 'low-pass',
    order: 5,
    shape: 'chebyshev',
    rippleDb: 0.5,
    edgeHz: 1000,
    edge: 'ripple',
  };
  const moves = (topology: string) => row({ ...shape, topology }).sensitivity.dbPerPercent;
  const cascades = [
    'unity-low-pass',
    'equal-part-low-pass',
    'multiple-feedback-low-pass',
    'state-variable-low-pass',
  ].map(moves);
  for (const ladder of ['lc-ladder-low-pass-5', 'leapfrog-low-pass-5'])
    expect(moves(ladder)).toBeLessThan(0.6 * Math.min(...cascades));
});

test('candidates hold the asked shape in every form, other shapes, and other slopes', () => {
  const list = candidatesOf(ask({ kind: 'low-pass', order: 4, edgeHz: 1000, gainDb: 0 }));
  expect(list).toHaveLength(60);
  expect(new Set(list.map((c) => c.shape)).size).toBeGreaterThan(6);
  expect(
    new Set(list.filter((c) => c.shape === 'butterworth').map((c) => c.order)).size,
  ).toBeGreaterThan(3);
  expect(list.map((c) => c.id)).toEqual(
    expect.arrayContaining([
      'butterworth 4 leapfrog-low-pass-4',
      'butterworth 4 lc-ladder-low-pass-4',
    ]),
  );
  expect(new Set(list.map((c) => c.id)).size).toBe(60);
});

test('with limits every shape comes in the least order that meets them', () => {
  const list = candidatesOf(
    ask({ kind: 'low-pass', limits: { passHz: 1000, passDb: 1, stopHz: 2000, stopDb: 40 } }),
  );
  const orders = new Map(list.map((c) => [c.shape, c.order]));
  expect(orders.get('elliptic')!).toBeLessThan(orders.get('chebyshev')!);
  expect(orders.get('chebyshev')!).toBeLessThan(orders.get('butterworth')!);
});

test('what cannot be designed keeps its place with the reason', () => {
  const wanted = ask({ ...SECOND, topology: 'equal-part-low-pass', gainDb: 0 });
  const found = weighOne({ id: 'x', shape: null, order: 2, topology: '', ask: wanted });
  expect('refusal' in found && found.refusal).toMatch(/gain/);
});

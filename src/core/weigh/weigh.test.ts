import { askSchema } from '@/core/design/ask';
import { designAsk } from '@/core/design/design';
import { candidatesOf } from './candidates';
import { DEFAULT_PRICES } from './prices';
import { recompute, recomputeYield } from './testing/recompute';
import { weighOne, type WeighRow } from './weigh';

const ask = (fields: object) => askSchema.parse(fields);
const row = (fields: object): WeighRow => {
  const wanted = ask(fields);
  const weighed = weighOne({
    id: 'x',
    shape: wanted.shape,
    order: wanted.order ?? 1,
    topology: wanted.topology ?? designAsk(wanted).stages[0].topology.id,
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
  const { topology } = SECOND;
  const found = weighOne({ id: 'x', shape: null, order: 2, topology, ask: wanted });
  expect('refusal' in found && found.refusal).toMatch(/gain/);
});

/** Asks of every kind and many shapes, each built in another way. */
const ASKS: object[] = [
  {
    kind: 'low-pass',
    shape: 'chebyshev',
    order: 5,
    rippleDb: 1,
    edge: 'ripple',
    edgeHz: 3400,
    topology: 'unity-low-pass',
  },
  {
    kind: 'low-pass',
    shape: 'elliptic',
    order: 7,
    edgeHz: 5000,
    topology: 'lc-ladder-traps-low-pass-7',
  },
  { kind: 'high-pass', shape: 'inverse-chebyshev', order: 4, edgeHz: 80 },
  {
    kind: 'high-pass',
    shape: 'bessel',
    order: 6,
    edgeHz: 300,
    topology: 'multiple-feedback-high-pass',
  },
  {
    kind: 'low-pass',
    shape: 'linkwitz-riley',
    order: 4,
    edgeHz: 2500,
    topology: 'leapfrog-low-pass-4',
  },
  {
    kind: 'band-pass',
    shape: 'chebyshev',
    order: 3,
    centreHz: 1000,
    q: 6,
    topology: 'state-variable-band-pass',
  },
  {
    kind: 'band-pass',
    shape: 'bessel',
    order: 3,
    centreHz: 821,
    q: 2.468,
    topology: 'state-variable-band-pass',
  },
  { kind: 'band-stop', shape: 'butterworth', order: 2, lowerHz: 700, upperHz: 1400 },
  { kind: 'wide-band', shape: 'butterworth', order: 3, lowerHz: 300, upperHz: 3400 },
  { kind: 'notch', centreHz: 50, q: 4, topology: 'state-variable-notch' },
  { kind: 'peak', centreHz: 1000, q: 3, gainDb: 12 },
  { kind: 'low-shelf', edgeHz: 200, gainDb: 9 },
  { kind: 'tilt', edgeHz: 700, gainDb: 6 },
  { kind: 'all-pass', shape: 'bessel', order: 3, edgeHz: 500 },
];

test.each(ASKS.map((a) => [JSON.stringify(a), a] as const))(
  'the figures of %s are those of a plain, dense search',
  (_, fields) => {
    const r = row(fields);
    const plain = recompute(r, 4000);
    if (r.rippleDb !== null) expect(Math.abs(r.rippleDb - plain.rippleDb)).toBeLessThan(0.01);
    if (plain.attenuationDb === null) expect(r.attenuationDb).toBeNull();
    else expect(Math.abs(r.attenuationDb! - plain.attenuationDb)).toBeLessThan(0.01);
    if (r.delayVariationSeconds !== null)
      expect(Math.abs(r.delayVariationSeconds / plain.delayVariationSeconds - 1)).toBeLessThan(
        0.005,
      );
    expect(Math.abs(r.sensitivity.dbPerPercent / plain.sensitivity - 1)).toBeLessThan(0.005);
    if (plain.innerPeakDb === null) expect(r.innerPeakDb).toBeNull();
    else expect(Math.abs(r.innerPeakDb! - plain.innerPeakDb)).toBeLessThan(0.01);
    // At the bandwidth that is said to be needed the pass band is half a decibel off.
    if (r.gainBandwidthHz !== null && r.ask.kind !== 'notch')
      expect(plain.offAt(r.gainBandwidthHz)).toBeCloseTo(0.5, 2);
    if (r.ask.kind !== 'all-pass') expect(r.yield).toBe(recomputeYield(r, 120, 1000));
  },
);

test('mirrored low-passes and high-passes have equal figures', () => {
  for (const shape of ['butterworth', 'chebyshev', 'elliptic', 'bessel'])
    for (const order of [3, 4]) {
      const of = (kind: string) =>
        row({
          kind,
          shape,
          order,
          edgeHz: 1000,
          topology: shape === 'elliptic' ? undefined : `lc-ladder-${kind}-${order}`,
        });
      const [low, high] = [of('low-pass'), of('high-pass')];
      expect(high.rippleDb).toBeCloseTo(low.rippleDb!, 5);
      expect(high.attenuationDb).toBeCloseTo(low.attenuationDb!, 4);
      if (shape !== 'elliptic')
        expect(high.sensitivity.dbPerPercent / low.sensitivity.dbPerPercent).toBeCloseTo(1, 3);
    }
});

test('each kind has the columns it is chosen by, and none that mean nothing for it', () => {
  const notch = row({ kind: 'notch', centreHz: 50, q: 4 });
  expect(notch).toMatchObject({ rippleDb: null, attenuationDb: null, heightErrorDb: null });
  expect(notch.widthHz).toBeCloseTo(50 / 4, 4);
  expect(notch.depthDb!).toBeGreaterThan(5);
  expect(notch.depthDb!).toBeLessThan(40);
  expect(notch.yield).toBeLessThan(1);
  const peak = row({ kind: 'peak', centreHz: 1000, q: 3, gainDb: 12 });
  expect(peak).toMatchObject({ rippleDb: null, attenuationDb: null, depthDb: null });
  expect(peak.heightErrorDb!).toBeGreaterThan(0);
  expect(peak.widthError!).toBeGreaterThan(0);
  const shelf = row({ kind: 'low-shelf', edgeHz: 200, gainDb: 9 });
  expect(shelf).toMatchObject({ rippleDb: null, delayVariationSeconds: null });
  expect(shelf.edgeErrorDb!).toBeGreaterThan(0);
  const passive = row({
    kind: 'low-pass',
    order: 3,
    edgeHz: 1000,
    topology: 'lc-ladder-low-pass-3',
  });
  expect(passive.innerPeakDb).toBeNull();
  const states = row({
    kind: 'low-pass',
    order: 5,
    shape: 'chebyshev',
    edgeHz: 1000,
    topology: 'leapfrog-transconductor-low-pass-5',
  });
  expect(states.innerPeakDb!).toBeGreaterThan(0);
});

test('a circuit with a shape of its own has its own Q and width, whatever was asked', () => {
  const twin = row({ kind: 'notch', centreHz: 50, q: 4, topology: 'twin-t' });
  expect(twin.worstQ).toBeCloseTo(0.25, 9);
  expect(twin.widthHz).toBeCloseTo(200, 4);
});

test('an ideal op-amp adds no noise, a real one adds its own', () => {
  const wanted = ask({ ...SECOND, capacitorFarads: 1e-8 });
  const noise = (opAmp?: NonNullable<Parameters<typeof weighOne>[1]>['opAmp']) => {
    const { topology } = SECOND;
    const r = weighOne({ id: 'x', shape: null, order: 2, topology, ask: wanted }, { opAmp });
    return 'refusal' in r ? NaN : r.outputNoiseVolts;
  };
  expect(noise()).toBe(noise('ideal'));
  const noisy = { gainBandwidthHz: 1e7, dcGainDb: 120, inputVoltageNoise: 40e-9 };
  expect(noise(noisy)).toBeGreaterThan(2 * noise());
});

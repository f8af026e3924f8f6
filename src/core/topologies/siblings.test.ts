import { TOPOLOGIES, topologyOf } from '.';
import { mirrorOf } from './mirror';
import { siblingAmong } from './siblings';

const TWINS = [
  'rc',
  'buffered-rc',
  'unity',
  'gain',
  'equal-part',
  'multiple-feedback',
  'third-order',
];

test.each(TWINS)('%s: low-pass and high-pass are each other with R and C exchanged', (family) => {
  const [low, high] = ['low-pass', 'high-pass'].map((kind) => topologyOf(`${family}-${kind}`));
  expect(low.family).toBe(family);
  expect(mirrorOf(low, high)).toBe(true);
  expect(mirrorOf(high, low)).toBe(true);
  expect(siblingAmong(low, TOPOLOGIES)).toBe(high);
});

test('circuits are twins by how they are joined, not by what they are called', () => {
  const twins = TOPOLOGIES.filter((a) => TOPOLOGIES.some((b) => mirrorOf(a, b)));
  // Of the same order and the opposite kind, and nothing is its own twin.
  for (const a of twins)
    for (const b of TOPOLOGIES.filter((t) => mirrorOf(a, t))) {
      expect(a.order).toBe(b.order);
      expect([a.kind, b.kind].sort()).toEqual(['high-pass', 'low-pass']);
    }
  // An op-amp's inputs are told apart, and a coil has no twin.
  expect(mirrorOf(topologyOf('unity-low-pass'), topologyOf('gain-high-pass'))).toBe(false);
  expect(mirrorOf(topologyOf('rl-low-pass'), topologyOf('rl-high-pass'))).toBe(false);
});

test('what has no twin finds one of its family, of the order or kind that is there', () => {
  const among = (...ids: string[]) => ids.map(topologyOf);
  const ladder = topologyOf('lc-ladder-low-pass-5');
  expect(siblingAmong(ladder, among('rc-low-pass', 'lc-ladder-low-pass-7'))?.id).toBe(
    'lc-ladder-low-pass-7',
  );
  const loop = topologyOf('state-variable-low-pass');
  expect(siblingAmong(loop, among('twin-t-notch', 'state-variable-notch'))?.id).toBe(
    'state-variable-notch',
  );
  expect(siblingAmong(topologyOf('twin-t'), TOPOLOGIES)).toBeUndefined();
});

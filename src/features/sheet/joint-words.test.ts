import { jointWords, ohmsWords, WARN_DB } from './joint-words';

const joint = (sourceOhms: number, loadOhms: number, lossDb: number) => ({
  before: 's1',
  after: 's2',
  sourceOhms,
  loadOhms,
  lossDb,
  atHz: 100,
});

test('a joint says both sides and what is lost, an open end and a heavy load among them', () => {
  expect(jointWords(joint(1234, 98_765, -0.1078), 'point')).toEqual({
    ohms: '1k2 → 99k Ω',
    loss: '−0.11',
    heavy: false,
  });
  expect(jointWords(joint(40, Infinity, 0), 'comma')).toEqual({
    ohms: '40 → open',
    loss: '0,00',
    heavy: false,
  });
  expect(jointWords(joint(10_000, 10_000, -6.02), 'point').heavy).toBe(true);
  expect(jointWords(joint(1, 1, WARN_DB), 'point').heavy).toBe(false);
  expect(ohmsWords(Infinity, 'point')).toBe('open');
});

import { Lead } from './lead';

test('it is short where that is enough, longer where it was not, and shorter again when it is calm', () => {
  const lead = new Lead();
  const short = lead.samples;
  expect(short).toBeLessThan(0.02 * 48_000);
  expect(lead.enough(600, 0)).toBe(true);
  expect(lead.enough(100, 10)).toBe(false);
  // All at once has one reason.
  expect(lead.enough(-300, 20)).toBe(false);
  expect(lead.samples).toBe(2 * short);
  expect(lead.enough(600, 9000)).toBe(true);
  expect(lead.samples).toBe(2 * short);
  lead.enough(600, 11_000);
  expect(lead.samples).toBe(short);
});

test('it grows up to all that is ever made ahead, and no further', () => {
  const lead = new Lead();
  for (let k = 0; k < 20; k++) lead.enough(0, 1000 * k);
  expect(lead.samples).toBe(6144);
});

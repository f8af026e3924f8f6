import { Lead } from './lead';

/** A lead, and a calm stretch in which no less than this lay ready. */
function lead() {
  const own = new Lead(0);
  let now = 0;
  const calm = (ready: number) => {
    own.hear(false, ready, (now += 2000));
    return own.samples;
  };
  return { own, calm, wait: (ms: number) => (now += ms) };
}

test('it is wide at first and after something was lacking, and less again when it is calm', () => {
  const { own, calm, wait } = lead();
  const wide = own.samples;
  for (let k = 0; k < 4; k++) calm(6000);
  const little = own.samples;
  expect(little).toBeLessThan(0.3 * wide);
  own.hear(true, 0, wait(300));
  expect(own.samples).toBe(wide);
});

test('it is widened before anything is lacking, and stays where less was nearly too little', () => {
  const { own, calm, wait } = lead();
  const wide = own.samples;
  expect(calm(1500)).toBe(wide);
  expect(calm(4000)).toBeLessThan(0.6 * wide);
  const little = calm(2000);
  expect(little).toBeLessThan(0.3 * wide);
  // It came near to having nothing: twice as much from then on, and no less. It goes on saying so
  // until what is made then has come.
  const now = wait(200);
  own.hear(false, 100, now);
  own.hear(false, 130, now);
  for (let k = 0; k < 2; k++) expect(calm(2500)).toBe(2 * little);
});

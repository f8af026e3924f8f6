import { freshBench } from './support/browser';
import { listen, missedWhileTurned } from './support/playing';

const bench = freshBench();

/** Of all pieces; some are lacking where the machine itself stands still. */
const MOST = 0.01;

test('nothing is missing from what sounds while its control is moved', async () => {
  const page = await bench.page('/sheet/demo-voice');
  const { missed, pieces } = await missedWhileTurned(page, await listen(page), 25);
  expect(missed).toBeLessThan(MOST * pieces);
});

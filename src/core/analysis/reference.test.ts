import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { checkReference } from './reference';

const FIXTURES = join(__dirname, '../fixtures');
const files = readdirSync(FIXTURES).filter((name) =>
  /^(ac|dc|noise|transient)-.*\.json$/.test(name),
);

test('there is a reference for every kind of analysis', () =>
  expect(files.length).toBeGreaterThanOrEqual(12));

test.each(files)('%s is met within its tolerance', (file) => {
  const { worst, tolerance } = checkReference(
    JSON.parse(readFileSync(join(FIXTURES, file), 'utf8')),
  );
  expect(worst).toBeLessThanOrEqual(tolerance);
});

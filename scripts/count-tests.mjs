// Counts a test run's results: passed, failed, and those that passed only at a second try, which are
// named. A file that could not be run at all counts as one failure.
import { readFileSync } from 'node:fs';

try {
  const { testResults, numPassedTests, numFailedTests } = JSON.parse(
    readFileSync(process.argv[2], 'utf8'),
  );
  const broken = testResults.filter(
    (t) => t.status === 'failed' && t.assertionResults.length === 0,
  ).length;
  const flaky = testResults
    .flatMap((t) => t.assertionResults)
    .filter((a) => a.status === 'passed' && a.invocations > 1);
  for (const { fullName } of flaky) console.error(`FLAKY: ${fullName}`);
  console.log(numPassedTests, numFailedTests + broken, flaky.length);
} catch {
  console.log(0, 1, 0);
}

import { Bench } from './browser';

// A browser test shares its machine with everything else; one that fails is tried once more, and the
// first failure is printed, so that only what fails twice counts.
jest.retryTimes(1, { logErrorsBeforeRetry: true });

afterEach(() => Bench.closeAll());

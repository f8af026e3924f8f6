import { benchAc, benchSpread } from './ac';
import { benchBook } from './book';
import { benchBrowser } from './browser';
import { benchCrossover } from './crossover';
import { benchFit } from './fit';
import { benchLargeSignal } from './large-signal';
import { benchListen } from './listen';
import { benchSuspects } from './suspects';
import { benchWeighUp } from './weigh';

const BENCHES: Readonly<Record<string, () => void | Promise<void>>> = {
  ac: benchAc,
  spread: benchSpread,
  'large-signal': benchLargeSignal,
  listen: benchListen,
  'weigh-up': benchWeighUp,
  fit: benchFit,
  crossover: benchCrossover,
  suspects: benchSuspects,
  browser: benchBrowser,
  book: benchBook,
};

/**
 * `npm run bench`: medians and ratios, printed and never asserted; `npm run bench -- fit listen` runs
 * those alone, and `engine` all but those in a browser.
 */
const asked = process.argv.slice(2);
const isAsked = (name: string) =>
  asked.length === 0 ||
  asked.includes(name) ||
  (asked.includes('engine') && name !== 'browser' && name !== 'book');
const unknown = asked.filter((name) => name !== 'engine' && !(name in BENCHES));
if (unknown.length > 0)
  throw new Error(
    `There is no benchmark “${unknown.join('”, “')}”: ${Object.keys(BENCHES).join(', ')}.`,
  );
for (const [name, bench] of Object.entries(BENCHES)) if (isAsked(name)) await bench();

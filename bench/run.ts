import { benchAc, benchSpread } from './ac';
import { benchBrowser } from './browser';
import { benchCrossover } from './crossover';
import { benchFit } from './fit';
import { benchLargeSignal } from './large-signal';
import { benchListen } from './listen';
import { benchWeighUp } from './weigh';

/** `npm run bench`: medians and ratios, printed and never asserted. `npm run bench -- engine` leaves the browser out. */
benchAc();
benchSpread();
benchLargeSignal();
benchListen();
benchWeighUp();
benchFit();
benchCrossover();
if (!process.argv.includes('engine')) void benchBrowser();

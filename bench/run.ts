import { benchAc, benchSpread } from './ac';
import { benchBrowser } from './browser';
import { benchFit } from './fit';
import { benchLargeSignal } from './large-signal';
import { benchWeighUp } from './weigh';

/** `npm run bench`: medians and ratios, printed and never asserted. `npm run bench -- engine` leaves the browser out. */
benchAc();
benchSpread();
benchLargeSignal();
benchWeighUp();
benchFit();
if (!process.argv.includes('engine')) void benchBrowser();

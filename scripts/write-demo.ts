import { readFileSync, writeFileSync } from 'node:fs';
import { demoSheets, MADE_AT } from '../src/core/demo/sheets';

/*
 * Writes the demo sheets down as they are designed, so that a browser that opens the product for
 * the first time need not design them. With --check it only says whether they are up to date.
 */
const PATH = 'src/core/demo/made.json';
const text = `${JSON.stringify(demoSheets(MADE_AT))}\n`;
if (!process.argv.includes('--check')) writeFileSync(PATH, text);
else if (readFileSync(PATH, 'utf8') !== text) {
  console.error(`${PATH} is out of date: run "npm run demo".`);
  process.exit(1);
}

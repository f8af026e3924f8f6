import { chromium } from 'playwright-core';
const dark = process.argv[2] === 'dark';
const size = dark ? { width: 1920, height: 1080 } : { width: 1280, height: 800 };
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' });
p.on('pageerror', (e) => console.log('PAGEERROR', e.message));
p.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text().slice(0, 300)));
await p.goto('http://localhost:3005/sheet/demo-speech');
await p.getByRole('button', { name: 'Margin of the book' }).click();
const setValue = async (part, text) => {
  await p.getByRole('button', { name: new RegExp(`^${part}\\b`) }).first().click();
  await p.keyboard.press('Control+a'); await p.keyboard.type(text); await p.keyboard.press('Enter'); await p.waitForTimeout(500);
};
await p.waitForTimeout(2500);
try { await setValue('C2', '3n3'); await setValue('R1', '3k9'); } catch (e) { console.log(e.message.slice(0, 300)); }
await p.keyboard.press('k'); await p.waitForTimeout(300); await p.keyboard.type('first try'); await p.keyboard.press('Enter'); await p.waitForTimeout(600);
try { await setValue('C2', '4n7'); } catch (e) { console.log(e.message.slice(0, 300)); }
await p.keyboard.press('Control+z'); await p.waitForTimeout(600);
await p.getByRole('textbox', { name: 'A note about this sheet' }).fill('The loop hums less with 3n3; try the quiet op-amp next.');
await p.getByRole('button', { name: 'Write it down' }).click(); await p.waitForTimeout(600);
await p.screenshot({ path: '/tmp/w/b1.png' });
await p.getByRole('link', { name: 'Book', exact: true }).click(); await p.waitForTimeout(1500);
const opts = p.getByRole('option'); console.log(await opts.count()); console.log(await opts.allTextContents());
await opts.last().click(); await p.waitForTimeout(1500);
await p.screenshot({ path: '/tmp/w/b2.png' });
await b.close();

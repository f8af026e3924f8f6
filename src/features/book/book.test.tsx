/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ArchiveReader } from '@/core/archive/reader';
import type { Sheet } from '@/core/sheet/schema';
import { withValue } from '@/core/sheet/stage';
import { writeArchive } from '@/store/archive-out';
import { entriesOf } from '@/store/book';
import { followBook } from '@/store/book-lines';
import { isBackupDue, putBackupOff, useBackup } from '@/store/backup';
import { database } from '@/store/database';
import { flush, leaveSheet, openSheet } from '@/store/session-storage';
import { edit, undo } from '@/store/sheet-session';
import { addSheet, loadSheet, renameSheet } from '@/store/sheets';
import type * as Here from '@/testing/engine';
import { newSheet, present } from '@/testing/open-sheet';
import { TakeArchive } from '../archive/take-archive';
import { keepNow } from '../sheet/actions/keeps';
import { statesOf, stateOfFile } from './compare-states';
import { EntryPanel } from './entry-panel';
import { Margin } from './margin';
import { takeUp } from './take-up';
import { openEntry } from './use-entry';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));

const setPart = (part: string, value: number) => {
  edit(({ ways: [way, ...ways] }) => ({
    ways: [
      { ...way, stages: [withValue(way.stages[0], part, value), ...way.stages.slice(1)] },
      ...ways,
    ],
  }));
};

let user: ReturnType<typeof userEvent.setup>;
let sheet: Sheet;
beforeEach(async () => {
  user = userEvent.setup({ delay: null, pointerEventsCheck: 0 });
  sheet = await addSheet(newSheet(), 'On the bench');
  await openSheet(sheet.id);
});
afterEach(() => leaveSheet());

/** A file that can be read; the simulated browser’s own cannot. */
const zip = (name: string, bytes: Uint8Array<ArrayBuffer>) =>
  Object.assign(new File([bytes], name, { type: 'application/zip' }), {
    arrayBuffer: () => Promise.resolve(bytes.buffer),
  });

const designLine = async () => (await entriesOf(sheet.id)).find((l) => l.kind === 'design')!;

test('the margin follows what is done and undone, and takes notes', async () => {
  followBook();
  render(<Margin id={sheet.id} title={sheet.title} />);
  const margin = screen.getByRole('complementary', { name: 'Margin of the book' });
  setPart('C2', 33e-9);
  await within(margin).findByText(/^C2 .* → 33n$/);
  undo();
  await within(margin).findByText(/^Tried and taken back: C2/);
  await user.type(within(margin).getByRole('textbox'), 'It hummed.');
  await user.click(within(margin).getByRole('button', { name: 'Write it down' }));
  await within(margin).findByText('It hummed.');
});

test('a line opens to what changed and the readings of both states, which are kept with it', async () => {
  setPart('C2', 33e-9);
  await flush();
  const { id } = await designLine();
  render(<EntryPanel id={id} />);
  const changes = await screen.findByRole('region', { name: 'What changed' });
  within(changes).getByText('33n');
  const both = await screen.findByRole('region', { name: 'Readings of both' });
  within(both).getByText(/^Upper edge/);
  await waitFor(async () =>
    expect((await designLine()).figures?.list).toHaveLength(sheet.readings.length),
  );
  await user.type(screen.getByRole('textbox', { name: 'Why' }), 'More bass.');
  await user.tab();
  await waitFor(async () => expect((await designLine()).note).toBe('More bass.'));
});

test('a state taken up again is the design of then with the boards of now, told in the book', async () => {
  setPart('C2', 33e-9);
  await flush();
  edit(() => ({ boards: [{ id: 'b1', name: 'Seven', values: {}, takes: [], note: '' }] }));
  setPart('R1', 5100);
  await flush();
  const { before } = await openEntry((await designLine()).id);
  await takeUp(sheet.id, before!);
  expect(present().ways).toEqual(sheet.ways);
  expect(present().boards.map((b) => b.name)).toEqual(['Seven']);
  const stored = await loadSheet(sheet.id);
  expect((stored as { sheet: Sheet }).sheet.ways).toEqual(sheet.ways);
  expect(JSON.stringify(await entriesOf(sheet.id))).toMatch(/"by":"Taken up again"|"undone":true/);
});

test('every state that is known can be compared: kept, built, written down, or from a file', async () => {
  keepNow('first');
  edit(() => ({
    boards: [{ id: 'b1', name: 'Seven', values: { 'w1/s1/R1': 9100 }, takes: [], note: '' }],
  }));
  setPart('C2', 33e-9);
  await flush();
  const states = await statesOf(present());
  expect(new Set(states.map((s) => s.group))).toEqual(
    new Set(['The sheet', 'Keeps', 'Boards', 'Book']),
  );
  const load = (key: RegExp) => states.find((s) => key.test(s.key))!.load();
  const valueOf = ({ ways }: Sheet, part: string) => ways[0].stages[0].parts[part].value;
  expect(valueOf(await load(/^keep/), 'C2')).toBe(valueOf(sheet, 'C2'));
  expect(valueOf(await load(/^board/), 'R1')).toBe(9100);
  expect(valueOf(await load(/^today/), 'C2')).toBe(33e-9);
  const file = stateOfFile('a.json', JSON.stringify(sheet));
  expect(valueOf(await file.load(), 'C2')).toBe(valueOf(sheet, 'C2'));
  expect(() => stateOfFile('a.json', '[]')).toThrow();
  expect(() => stateOfFile('a.json', '{"format":"x"}')).toThrow(/This is not a sheet/);
});

test('an archive is looked through, what differs decided on, and merged', async () => {
  await flush();
  const chunks: Uint8Array<ArrayBuffer>[] = [];
  await writeArchive((chunk) => chunks.push(chunk));
  expect(
    new ArchiveReader(Uint8Array.from(Buffer.concat(chunks))).index.counts.sheet,
  ).toBeGreaterThan(0);
  await leaveSheet();
  await renameSheet(sheet.id, 'Named otherwise');
  render(<TakeArchive />);
  const field = screen.getByLabelText('Archive to take in');
  await user.upload(field, zip('bad.zip', new Uint8Array([1, 2, 3])));
  await screen.findByText(/bad.zip: This archive is not taken/);
  await user.upload(field, zip('mine.zip', Uint8Array.from(Buffer.concat(chunks))));
  const differs = await screen.findByRole('list', { name: 'What differs' });
  within(differs).getByText('On the bench');
  await user.click(screen.getByRole('button', { name: 'Take the archive’s' }));
  await user.click(screen.getByRole('button', { name: 'Merge it with what is here' }));
  await waitFor(async () => {
    const stored = await loadSheet(sheet.id);
    expect((stored as { sheet: Sheet }).sheet.title).toBe('On the bench');
  });
});

test('the reminder comes after two weeks of work, and can be put off', async () => {
  const day = 24 * 3600_000;
  const now = Date.now();
  await database().book.clear();
  const due = (at = now) => isBackupDue(useBackup.getState(), at);
  expect(await due()).toBe(false);
  for (let i = 0; i < 20; i++)
    await database().book.put({
      id: `old${i}`,
      sheet: '',
      at: new Date(now - (20 - i / 2) * day).toISOString(),
      touched: i,
      document: null,
    });
  expect(await due()).toBe(true);
  putBackupOff(now);
  expect(await due()).toBe(false);
  expect(await due(now + 8 * day)).toBe(true);
  useBackup.setState({ lastAt: new Date(now - 3 * day).toISOString(), putOffUntil: null });
  expect(await due()).toBe(false);
});

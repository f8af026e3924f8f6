/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, renderHook, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { DRIVER, TAKE } from '@/core/library/testing';
import { fileOf } from '@/core/sheet/file';
import type { Sheet } from '@/core/sheet/schema';
import type { Card } from '@/store/card';
import { database } from '@/store/database';
import { libraryFor } from '@/store/library';
import { listCards } from '@/store/shelf';
import { tendCards } from '@/store/tend-cards';
import { addFiles, addSheet, loadSheet, required } from '@/store/sheets';
import { LOW_PASS, newSheet } from '@/testing/open-sheet';
import { download } from '@/ui/download';
import { useTold } from '../shell/tell';
import { duplicate, exportSheet, remove, removeForGood, rename, restore } from './card-actions';
import { Deleted } from './deleted';
import { exportShelf } from './export-shelf';
import { JOBS } from './jobs';
import { NewSheet } from './new-sheet';
import { SheetCard } from './sheet-card';
import { useImport } from './use-import';

const push = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }) }));
jest.mock('next/link', () => ({
  __esModule: true,
  default: ({ href, children, ...rest }: { href: string; children: ReactNode }) => (
    <a href={href} aria-label={(rest as { 'aria-label'?: string })['aria-label']}>
      {children}
    </a>
  ),
}));
jest.mock('@/workers/engine', () => ({
  engine: () => ({
    run: (name: string, input: { sheet: { ways: unknown[] } }) =>
      // A new sheet's values are left as they are; fitting them has tests of its own.
      Promise.resolve(
        name === 'fit'
          ? { fitted: input.sheet.ways[0] }
          : {
              frequenciesHz: Float32Array.of(10, 100, 1000),
              levelDb: Float32Array.of(0, -1, -20),
            },
      ),
  }),
}));
jest.mock('@/ui/download', () => ({
  ...jest.requireActual<object>('@/ui/download'),
  download: jest.fn(),
}));

const downloaded = () => {
  const [name, text] = (download as jest.Mock).mock.lastCall as [string, string];
  return { name, document: JSON.parse(text) as unknown };
};
const told = () =>
  useTold
    .getState()
    .waiting.flatMap((t) => ('content' in t && typeof t.content === 'string' ? t.content : []));
const cardOf = async (id: string): Promise<Card> => (await listCards()).find((c) => c.id === id)!;
/** As the page hands files on. */
const file = (name: string, document: unknown): File => {
  const text = typeof document === 'string' ? document : JSON.stringify(document);
  return { name, size: text.length, text: () => Promise.resolve(text) } as File;
};

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(async () => {
  act(() => useTold.setState({ waiting: [], begun: false }));
  for (const table of database().tables) await table.clear();
  jest.clearAllMocks();
});
afterAll(() => database().close());

describe('importing', () => {
  const importing = async (...files: File[]) => {
    const { result } = renderHook(() => useImport());
    await act(() => result.current.importFiles(files));
    return result.current.problems;
  };
  const titles = async () => (await listCards()).map((c) => c.title).sort();

  test('files of one sheet, of a shelf, and a circuit', async () => {
    const two = [newSheet(LOW_PASS, { title: 'B' }), newSheet(LOW_PASS, { title: 'C' })];
    const circuit = {
      format: 'jaunty-reed/circuit',
      version: 1,
      title: 'RC',
      ground: '0',
      parts: [
        { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', acVolts: 1 },
        { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 1000 },
        { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 1e-7 },
      ],
    };
    const problems = await importing(
      file('a.json', newSheet(LOW_PASS, { title: 'A' })),
      file('shelf.json', two),
      file('rc.json', circuit),
    );
    expect(problems).toEqual([]);
    expect(await titles()).toEqual(['A', 'B', 'C', 'RC']);
    expect(told()).toEqual(['Imported 4 sheets']);
  });

  test('what goes along is there with its sheet', async () => {
    const [way] = newSheet().ways;
    const spoken: Sheet = newSheet(LOW_PASS, {
      title: 'Spoken',
      ways: [{ ...way, to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false } }],
      boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
    });
    const library = { takes: [TAKE], drivers: [DRIVER], drawer: [] };
    expect(await importing(file('s.json', fileOf(spoken, library)))).toEqual([]);
    const [{ id }] = await listCards();
    expect((await libraryFor([await required(id)])).library).toEqual(library);
    await exportSheet(await cardOf(id));
    expect(downloaded().document).toMatchObject({ title: 'Spoken', along: { takes: [TAKE] } });
  });

  test('each bad file says why by its name, the good ones are taken', async () => {
    const bad = [newSheet(), { ...newSheet(), version: 99 }];
    const problems = await importing(
      file('good.json', newSheet(LOW_PASS, { title: 'Good' })),
      file('broken.json', '{"format": '),
      file('other.json', { hello: 1 }),
      file('list.json', bad),
      file('along.json', { ...newSheet(), along: { takes: [{ ...TAKE, levelDb: [] }] } }),
    );
    expect(problems).toEqual([
      expect.stringMatching(/^broken\.json: The file is not JSON/),
      expect.stringMatching(/^other\.json: This is not a sheet/),
      expect.stringMatching(/^list\.json: Sheet 2 of the list: .*version 99/),
      expect.stringMatching(/^along\.json: “along\.takes\[0\]”: The take cannot be read/),
    ]);
    expect(await titles()).toEqual(['Good', 'On the bench']);
    expect(await database().takes.count()).toBe(0);
  });

  test('a full storage keeps nothing of the file, and says so', async () => {
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    database().sheets.hook('creating', full);
    const problems = await importing(file('a.json', newSheet()));
    database().sheets.hook('creating').unsubscribe(full);
    expect(problems[0]).toMatch(/^a\.json: this browser’s storage is full/);
    expect(await listCards()).toEqual([]);
  });

  test('a file far larger than any sheet is not even read', async () => {
    const text = jest.fn();
    const problems = await importing({ name: 'huge.json', size: 1e9, text } as unknown as File);
    expect(problems[0]).toMatch(/far larger than any sheet/);
    expect(text).not.toHaveBeenCalled();
  });
});

describe('a card', () => {
  test('shows what the sheet does, opens it, and is renamed where it stands', async () => {
    const { id } = await addSheet(newSheet());
    render(<SheetCard card={await cardOf(id)} />);
    expect(screen.getByText(/low-pass, order 4/)).toBeDefined();
    const link = screen.getByRole('link', { name: 'Open On the bench' });
    expect(link.getAttribute('href')).toBe(`/sheet/${id}`);
    await waitFor(() => expect(link.querySelector('path')?.getAttribute('d')).toMatch(/^M/));
    await user.click(screen.getByRole('button', { name: 'Actions for On the bench' }));
    await user.click(await screen.findByRole('menuitem', { name: 'Rename' }));
    const field = await screen.findByRole('textbox', { name: 'New name' });
    await user.clear(field);
    await user.type(field, 'Speech band{Enter}');
    expect(screen.getByRole('heading').textContent).toBe('Speech band');
    await waitFor(async () => expect((await required(id)).title).toBe('Speech band'));
  });

  test('of a damaged sheet says what is wrong, and opens what can be read', async () => {
    const damaged = { ...newSheet(), ask: 4 };
    await database().sheets.put({
      id: 'd1',
      updatedAt: '',
      revision: 1,
      deletedAt: null,
      document: damaged,
    });
    await tendCards();
    render(<SheetCard card={await cardOf('d1')} />);
    expect(screen.getByText(/“ask”/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: /^Export what is stored/ }));
    await waitFor(() => expect(download).toHaveBeenCalled());
    expect(downloaded().document).toEqual(JSON.parse(JSON.stringify(damaged)));
    await user.click(screen.getByRole('button', { name: /^Open what can be read/ }));
    await waitFor(() => expect(push).toHaveBeenCalled());
    const [[path]] = push.mock.calls as [[string]];
    expect(await loadSheet(path.split('/').pop()!)).toMatchObject({
      sheet: { title: 'On the bench (what could be read)' },
    });
    // What is stored is left as it is.
    expect((await database().sheets.get('d1'))!.document).toEqual(damaged);
  });
});

describe('what is done with a card', () => {
  test('renamed, doubled, deleted, brought back, deleted for good', async () => {
    const { id } = await addSheet(newSheet());
    expect(await rename(await cardOf(id), 'Hall')).toBe(true);
    expect(await duplicate(await cardOf(id))).toBe(true);
    expect(told()).toEqual(['Duplicated as “Hall (copy)”']);
    await remove(await cardOf(id));
    expect((await cardOf(id)).deletedAt).not.toBeNull();
    expect(await restore(await cardOf(id))).toBe(true);
    expect((await cardOf(id)).deletedAt).toBeNull();
    await removeForGood(await cardOf(id));
    expect((await listCards()).map((c) => c.title)).toEqual(['Hall (copy)']);
  });

  test('what cannot be done is said with its name', async () => {
    const { id } = await addSheet(newSheet());
    const card = await cardOf(id);
    await database().sheets.delete(id);
    expect(await rename(card, 'Hall')).toBe(false);
    expect(await duplicate(card)).toBe(false);
    expect(told()).toEqual([
      '“On the bench” was not renamed: the sheet is no longer there.',
      '“On the bench” was not duplicated: the sheet is no longer there.',
    ]);
  });

  test('the deleted ones are listed for a week, each with both ways', async () => {
    const { id } = await addSheet(newSheet());
    await remove(await cardOf(id));
    render(<Deleted cards={[await cardOf(id)]} />);
    await user.click(screen.getByText('Recently deleted (1)'));
    const list = await screen.findByRole('list', { name: 'Recently deleted' });
    await user.click(within(list).getByRole('button', { name: 'Bring back On the bench' }));
    await waitFor(async () => expect((await cardOf(id)).deletedAt).toBeNull());
    await remove(await cardOf(id));
    await user.click(within(list).getByRole('button', { name: 'Delete On the bench for good' }));
    await waitFor(async () => expect(await listCards()).toEqual([]));
  });

  test('the whole shelf goes into one file, which brings it all back', async () => {
    await addFiles(
      [newSheet(LOW_PASS, { title: 'A' }), newSheet(LOW_PASS, { title: 'B' })].map((sheet) => ({
        sheet,
        along: { takes: [], drivers: [], drawer: [] },
      })),
    );
    await exportShelf();
    const { name, document } = downloaded();
    expect(name).toBe('shelf.json');
    expect((document as Sheet[]).map((s) => s.title).sort()).toEqual(['A', 'B']);
    const { result } = renderHook(() => useImport());
    await act(() => result.current.importFiles([file(name, document)]));
    expect((await listCards()).map((c) => c.title).sort()).toEqual(['A', 'A', 'B', 'B']);
  });
});

describe('a new sheet', () => {
  const FLAT = JOBS.find((j) => j.id === 'flat-low')!;
  const begin = async (job: string, hz: string, title = '') => {
    const made = jest.fn();
    render(<NewSheet open onClose={() => undefined} onMade={made} onDrivers={() => undefined} />);
    await user.click(screen.getByRole('radio', { name: (said) => said.startsWith(job) }));
    const place = screen.getByRole('textbox', { name: /^(Edge|Centre) at/ });
    await user.clear(place);
    await user.type(place, hz);
    if (title) await user.type(screen.getByRole('textbox', { name: 'Called' }), title);
    await user.click(screen.getByRole('button', { name: 'Begin the sheet' }));
    return made;
  };

  test('is begun by its job, at a frequency, under a name', async () => {
    const made = await begin(FLAT.title, '3k4', '  Speech ');
    await waitFor(() => expect(made).toHaveBeenCalled());
    const [[sheet]] = made.mock.calls as [[Sheet]];
    expect(sheet).toMatchObject({ title: 'Speech' });
    expect(await required(sheet.id)).toEqual(sheet);
  });

  test.each([
    ['often', /often/],
    ['0', /between 1\smHz and 10\sMHz/],
    ['50G', /between 1\smHz and 10\sMHz/],
  ])('at “%s” it is refused in the window', async (hz, words) => {
    const made = await begin(FLAT.title, hz);
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(made).not.toHaveBeenCalled();
    expect(await database().sheets.count()).toBe(0);
  });
});

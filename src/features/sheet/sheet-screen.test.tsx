/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import type * as Here from '@/testing/engine';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { DRIVER, TAKE } from '@/core/library/testing';
import type { Sheet } from '@/core/sheet/schema';
import { database } from '@/store/database';
import { setQuietly } from '@/store/session-state';
import { undo, useSheet } from '@/store/sheet-session';
import { leaveSheet } from '@/store/session-storage';
import { seedDemo } from '@/store/seed-demo';
import { addFiles, addSheet, loadSheet } from '@/store/sheets';
import { closeNow, LOW_PASS, newSheet, openNow, present, stages } from '@/testing/open-sheet';
import { download } from '@/ui/download';
import { useTold } from '../shell/tell';
import { exportNow, EXPORTS } from './exports';
import { LensBar } from './lens-bar';
import { LENSES } from './lenses';
import { Notices } from './notices';
import { SheetHeader } from './sheet-header';
import { SheetScreen } from './sheet-screen';
import { resetUi, setUi } from './ui-state';

const push = jest.fn();
jest.mock('next/navigation', () => ({
  useRouter: () => ({ push, replace: push }),
  usePathname: () => '/',
}));
jest.mock('next/link', () => ({
  __esModule: true,
  default: ({ href, children }: { href: string; children: ReactNode }) => (
    <a href={href}>{children}</a>
  ),
}));
jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('@/ui/chart/use-size', () => ({
  useSize: () => [{ current: null }, { width: 560, height: 360 }],
}));
jest.mock('@/ui/download', () => ({
  ...jest.requireActual<object>('@/ui/download'),
  download: jest.fn(),
}));

let user: ReturnType<typeof userEvent.setup>;
beforeEach(async () => {
  user = userEvent.setup({ delay: null });
  await seedDemo();
});
afterEach(async () => {
  await act(() => leaveSheet());
  act(() => {
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  });
  for (const table of database().tables) await table.clear();
  jest.clearAllMocks();
});
afterAll(() => database().close());

const handedOver = () => {
  const [name, content] = (download as jest.Mock).mock.lastCall as [string, string];
  return { name, content };
};

describe('the screen of a sheet', () => {
  test('shows ask, path, circuit, picture and readings of what is stored', async () => {
    const { id } = await addSheet(newSheet());
    render(<SheetScreen id={id} />);
    expect(await screen.findByRole('button', { name: 'On the bench: rename' })).toBeDefined();
    expect(await screen.findByRole('group', { name: 'Schematic of the stage' })).toBeDefined();
    expect(await screen.findByRole('region', { name: 'Signal path' })).toBeDefined();
    expect(await screen.findByRole('row', { name: /^Upper edge.*✓ built|✗ built/ })).toBeDefined();
    expect(document.querySelectorAll('path[data-layer="built"]')).toHaveLength(1);
    expect(document.title).toBe('On the bench · Jaunty Reed');
  });

  test('of a sheet that is not there says so', async () => {
    render(<SheetScreen id="nowhere" />);
    expect((await screen.findByRole('heading')).textContent).toMatch(/no such sheet/);
    expect(screen.getByRole('link', { name: 'To the shelf' }).getAttribute('href')).toBe('/');
  });

  test('of a damaged one says what is wrong, hands it over, and opens what can be read', async () => {
    const document_ = { ...newSheet(), source: 'a wire' };
    const record = { id: 'd1', updatedAt: '', revision: 1, deletedAt: null, document: document_ };
    await database().sheets.put(record);
    render(<SheetScreen id="d1" />);
    const alert = within(await screen.findByRole('alert'));
    expect(alert.getByText(/at “source”/)).toBeDefined();
    await user.click(alert.getByRole('button', { name: 'Export what is stored' }));
    expect(JSON.parse(handedOver().content)).toEqual(JSON.parse(JSON.stringify(document_)));
    await user.click(alert.getByRole('button', { name: 'Open what can be read' }));
    await waitFor(() => expect(push).toHaveBeenCalledWith(expect.stringMatching(/^\/sheet\/\w+$/)));
  });
});

describe('the head of a sheet', () => {
  function Head() {
    const { title, ask, keeps } = useSheet()!;
    return <SheetHeader title={title} ask={ask} made="" byHand={false} keeps={keeps} />;
  }

  test('renames, undoes and does again', async () => {
    openNow();
    render(<Head />);
    const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
    expect(button('Undo').disabled).toBe(true);
    await user.click(button('On the bench: rename'));
    const field = await screen.findByRole('textbox', { name: 'Name of the sheet' });
    await user.clear(field);
    await user.type(field, 'Hall loop{Enter}');
    expect(present().title).toBe('Hall loop');
    await user.click(button('Undo'));
    expect(present().title).toBe('On the bench');
    await user.click(button('Redo'));
    expect(present().title).toBe('Hall loop');
  });

  test('chooses the series that parts come from, and every value again', async () => {
    openNow();
    render(<Head />);
    await user.click(screen.getByRole('button', { name: 'Fit parts' }));
    await user.click(await screen.findByRole('combobox', { name: 'Resistors from' }));
    await user.click(await screen.findByTitle('exact'));
    expect(present().parts.resistors).toBe('exact');
    const exact = stages()[0].parts.R1.value;
    act(() => undo());
    expect(stages()[0].parts.R1.value).not.toBe(exact);
    await user.click(screen.getByRole('button', { name: 'Round each by itself' }));
    expect(stages()[0].parts.R1.chosen).toBe('fit');
  });
});

describe('the lenses to choose from', () => {
  function Bar() {
    return <LensBar view={useSheet()!.view} lenses={LENSES} />;
  }

  test('are tabs, and only pictures over frequency have ends', async () => {
    openNow();
    render(<Bar />);
    await user.click(screen.getByRole('tab', { name: 'Phase' }));
    expect(present().view.lens).toBe('phase');
    expect(screen.getByRole('button', { name: /^Picture from/ })).toBeDefined();
    await user.click(screen.getByRole('tab', { name: 'Map' }));
    expect(screen.queryByRole('button', { name: /^Picture from/ })).toBeNull();
  });

  test.each([
    ['400k', /at least one octave/],
    ['0', /at least one octave|at least/],
    ['x', /x/],
  ])('a picture from “%s” is refused where it is typed', async (text, words) => {
    openNow();
    const { view } = present();
    render(<Bar />);
    await user.click(screen.getByRole('button', { name: /^Picture from/ }));
    const field = screen.getByRole('textbox', { name: 'Picture from' });
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
    expect(screen.getByRole('alert').textContent).toMatch(words);
    expect(present().view).toEqual(view);
  });
});

describe('what should be known', () => {
  test('a sheet deleted elsewhere can be brought back, or left so', async () => {
    openNow();
    setQuietly({ status: { is: 'gone' } });
    render(<Notices problem={null} />);
    await user.click(screen.getByRole('button', { name: 'Leave it deleted' }));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/'));
    act(() => {
      openNow();
      setQuietly({ status: { is: 'gone' } });
    });
    await user.click(screen.getByRole('button', { name: 'Bring it back' }));
    await waitFor(async () => expect(await loadSheet('test')).toMatchObject({ id: 'test' }));
  });

  test('edits that cannot be stored are said, with a way to take them along', async () => {
    openNow();
    setQuietly({ status: { is: 'failed', problem: 'this browser’s storage is full' } });
    render(<Notices problem="No unique solution." />);
    const [failed, problem] = screen.getAllByRole('alert');
    expect(failed.textContent).toMatch(/could not be stored: this browser’s storage is full/);
    expect(problem.textContent).toBe('No unique solution.');
    await user.click(screen.getByRole('button', { name: 'Export the sheet' }));
    await waitFor(() => expect(download).toHaveBeenCalled());
    expect(handedOver().name).toBe('on-the-bench.sheet.json');
  });

  test('another tab’s change is told once, with a way to it', async () => {
    openNow();
    setQuietly({
      notice: { text: 'Another tab has changed it.', other: { id: 'o', title: 'Other' } },
    });
    render(<Notices problem={null} />);
    expect(screen.getByRole('link', { name: 'Open “Other”' }).getAttribute('href')).toBe(
      '/sheet/o',
    );
    await user.click(screen.getByRole('button', { name: 'Understood' }));
    expect(screen.queryByRole('status')).toBeNull();
  });
});

describe('exports', () => {
  test('a sheet goes with what it refers to, and says what could not go', async () => {
    const [way] = newSheet().ways;
    const spoken = newSheet(LOW_PASS, {
      ways: [{ ...way, to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false } }],
      boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
    });
    const [sheet] = await addFiles([
      { sheet: spoken, along: { takes: [], drivers: [DRIVER], drawer: [] } },
    ]);
    openNow(sheet);
    await exportNow('sheet');
    const file = JSON.parse(handedOver().content) as Sheet & { along: object };
    expect(file.along).toEqual({ drivers: [DRIVER] });
    expect(useTold.getState().waiting[0]).toMatchObject({
      type: 'warning',
      content:
        'Exported without something that belongs to it: A take that it refers to is not in this browser.',
    });
  });

  test('the response has a block of rows for each layer', async () => {
    openNow();
    await exportNow('csv');
    expect(handedOver().name).toBe('on-the-bench.csv');
    expect(handedOver().content).toMatch(/^layer,frequency_hz,.*\r\nideal,[\s\S]*\r\nbuilt,/);
  });

  test.each(EXPORTS.filter((e) => /Schematic|Picture/.test(e.title)).map((e) => [e.id]))(
    '%s without anything on screen says what is missing',
    async (id) => {
      openNow();
      await expect(exportNow(id)).rejects.toThrow(/There is no (schematic|picture) on screen/);
    },
  );

  test('a picture is written as it looks, in attributes of its own', async () => {
    openNow();
    document.body.innerHTML = `<div data-picture><svg width="10" height="10" viewBox="0 0 10 10">
      <path class="built" d="M0 0L9 9" stroke="red"></path></svg></div>`;
    setUi({});
    await exportNow('picture-svg');
    const { name, content } = handedOver();
    expect(name).toBe('on-the-bench-level.svg');
    expect(content).toMatch(/^<\?xml version="1.0"/);
    expect(content).not.toMatch(/class=/);
    expect(content).toContain('M0 0L9 9');
    document.body.innerHTML = '';
  });
});

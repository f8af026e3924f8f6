/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { bankPicture, type BankPicture } from '@/core/bank/picture';
import { demoMade } from '@/testing/demo';
import { formatFixed } from '@/core/quantity/format';
import { valuesOf } from '@/core/sheet/stage';
import { undo, useSheet } from '@/store/sheet-session';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import {
  addChannel,
  changeChannel,
  removeChannel,
  setKnown,
  setMarked,
  setOverlap,
} from './bank-actions';
import { ChannelTable } from './channel-table';
import { Parts } from './parts-table';

const BANK = demoMade(AT).find((s) => s.bank)!;
let picture: BankPicture;
let user: ReturnType<typeof userEvent.setup>;
beforeAll(async () => {
  picture = await bankPicture(BANK);
});
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  openNow(BANK);
});
afterEach(() =>
  act(() => {
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);
const bank = () => present().bank!;
const told = () => useTold.getState().waiting.map((t) => ('content' in t ? t.content : ''));

describe('what is done to a bank', () => {
  test('a channel is changed and its path designed anew; the paths stay those of the channels', () => {
    const before = present();
    changeChannel('c3', { centreHz: 300 });
    expect(bank().channels[2].centreHz).toBe(300);
    expect(valuesOf(present().ways[2].stages[0])).not.toEqual(valuesOf(before.ways[2].stages[0]));
    expect(present().ways.map((w) => w.id)).toEqual(bank().channels.map((c) => c.id));
    undo();
    expect(present()).toEqual(before);
  });

  test('one more lies as far above the last as that above the one before it', () => {
    addChannel();
    const centres = bank().channels.map((c) => c.centreHz);
    expect(centres).toHaveLength(9);
    expect(centres[8] / centres[7]).toBeCloseTo(centres[7] / centres[6], 1);
    expect(new Set(bank().channels.map((c) => c.id)).size).toBe(9);
    removeChannel('c1');
    expect(bank().channels[0].id).toBe('c2');
    expect(present().ways).toHaveLength(8);
  });

  test('a known part keeps its value while the others are worked out around it', () => {
    const part = Object.keys(valuesOf(present().ways[0].stages[0])).find((id) =>
      id.startsWith('C'),
    )!;
    setKnown('c1', `1/${part}`, 100e-9);
    expect(valuesOf(present().ways[0].stages[0])[part]).toBe(100e-9);
    changeChannel('c1', { centreHz: 70 });
    expect(valuesOf(present().ways[0].stages[0])[part]).toBe(100e-9);
    setKnown('c1', `1/${part}`, null);
    expect(bank().channels[0].known).toEqual({});
  });

  test.each([
    [() => setKnown('c1', '1/R1', -5), /greater than zero/],
    [() => changeChannel('c1', { centreHz: 2e10 }), /at most/],
    [() => changeChannel('c1', { stages: 99 }), /at most/],
    [() => setOverlap(900), /at most/],
  ])('%p is refused, and nothing is half done', (act_, words) => {
    const before = present();
    expect(act_).toThrow(words);
    expect(present()).toEqual(before);
  });
});

describe('the table of channels', () => {
  function Open() {
    return (
      <ChannelTable
        bank={useSheet()!.bank!}
        ways={useSheet()!.ways}
        picture={picture}
        chosen="c2"
        onChoose={choose}
      />
    );
  }
  const choose = jest.fn();
  const cell = (name: RegExp) => screen.getByRole('button', { name });
  const type = async (name: RegExp, text: string) => {
    await user.click(cell(name));
    const field = screen.getByRole('textbox');
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
  };

  test('shows what is asked of each and what was found', () => {
    render(<Open />);
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows).toHaveLength(8);
    const [first] = picture.channels;
    expect(rows[0].textContent).toContain(`${formatFixed(first.peakDb, 1)} dB`);
    expect(
      within(rows[0]).getByRole('button', { name: /^Width of channel 1, by overlap/ }),
    ).toBeDefined();
    expect(
      within(rows[1]).getByRole('button', { name: 'Channel 2' }).getAttribute('aria-pressed'),
    ).toBe('true');
  });

  test('centre, width, stages and gain are edited where they stand', async () => {
    render(<Open />);
    await type(/^Centre of channel 1/, '80');
    await type(/^Width of channel 1/, '40');
    await type(/^Gain of channel 1/, '-3');
    expect(bank().channels[0]).toMatchObject({ centreHz: 80, widthHz: 40, gainDb: -3 });
    await type(/^Width of channel 1/, ' ');
    expect(bank().channels[0].widthHz).toBeUndefined();
    await type(/^Overlap/, '6');
    expect(bank().overlapDb).toBe(6);
  });

  test('a channel is added, removed and chosen; the last one stays', async () => {
    render(<Open />);
    await user.click(screen.getByRole('button', { name: /Add a channel/ }));
    expect(bank().channels).toHaveLength(9);
    for (let n = 0; n < 8; n++)
      await user.click(screen.getByRole('button', { name: 'Remove channel 1' }));
    const last = screen.getByRole('button', { name: 'Remove channel 1' });
    expect((last as HTMLButtonElement).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Channel 1' }));
    expect(choose).toHaveBeenCalledWith(bank().channels[0].id);
    expect(told()).toEqual([]);
  });

  test('whether every other one is inverted is a tick', async () => {
    render(<Open />);
    const tick = screen.getByRole('checkbox', { name: /every other channel inverted/ });
    const before = bank().alternate;
    await user.click(tick);
    expect(bank().alternate).toBe(!before);
  });
});

describe('the parts of a channel', () => {
  function Open() {
    const sheet = useSheet()!;
    return <Parts channel={sheet.bank!.channels[0]} way={sheet.ways[0]} picture={picture} />;
  }

  test('stand under their stages, with the value that is worked out', () => {
    render(<Open />);
    expect(screen.getByRole('heading').textContent).toMatch(/^Parts at 63\sHz$/);
    expect(screen.getAllByText(/^Stage \d, .*: leaves .* dB$/)).toHaveLength(2);
    expect(
      screen.getAllByRole('button', { name: /^Known \w+ of stage [12]: unknown$/ }).length,
    ).toBe(present().ways[0].stages.flatMap((s) => Object.keys(valuesOf(s))).length);
  });

  test('a typed value makes a part known; what it leaves no choice is said', async () => {
    render(<Open />);
    const [first] = screen.getAllByRole('button', { name: /^Known R\d of stage 1/ });
    const name = first.getAttribute('aria-label')!.split(':')[0];
    await user.click(first);
    await user.type(screen.getByRole('textbox', { name }), '1k{Enter}');
    expect(Object.values(bank().channels[0].known)).toEqual([1000]);
    expect(screen.getByRole('button', { name: `${name}: 1\u00a0kΩ` })).toBeDefined();
    const left = screen
      .getAllByRole('button', { name: /^Known \w+ of stage 1: unknown$/ })
      .map((button) => button.getAttribute('aria-label')!.split(':')[0]);
    for (const label of left) {
      await user.click(screen.getByRole('button', { name: `${label}: unknown` }));
      const field = screen.getByRole('textbox', { name: label });
      await user.type(field, label.includes('C') ? '1u{Enter}' : '9k1{Enter}');
    }
    expect(screen.getAllByRole('status')[0].textContent).toMatch(
      /^The given parts leave .* of stage 1 no choice: it comes to .*, .* was wanted\.$/,
    );
  });
});

describe('a partly known board', () => {
  function Table() {
    const sheet = useSheet()!;
    return (
      <ChannelTable
        bank={sheet.bank!}
        ways={sheet.ways}
        picture={picture}
        chosen="c2"
        onChoose={() => undefined}
      />
    );
  }

  test('is pasted from a spreadsheet: what cannot be read is listed, nothing is put in before', async () => {
    const before = present();
    render(<Table />);
    await user.click(screen.getByRole('button', { name: 'Paste known values' }));
    const field = await screen.findByRole('textbox', { name: 'Table of known values' });
    await user.click(field);
    await user.paste('channel,1/C1,1/C2,1/R1\n2,33n,33n,100k\n99,1n,1n,1k');
    const window = within(screen.getByRole('dialog'));
    expect(window.getByText(/Line 3: there is no channel “99”/)).toBeDefined();
    expect(present()).toEqual(before);
    await user.click(window.getByRole('button', { name: 'Put in 1 channels' }));
    expect(bank().channels[1].known).toEqual({ '1/C1': 3.3e-8, '1/C2': 3.3e-8, '1/R1': 1e5 });
    expect(screen.getByText(/^R[23] .*Ω/)).toBeDefined();
    act(() => undo());
    expect(present()).toEqual(before);
  });

  test('shows what was worked out beside what is marked, and whether the trimmer reaches it', () => {
    const values = valuesOf(present().ways[1].stages[0]);
    setKnown('c2', '1/C1', values.C1);
    setKnown('c2', '1/C2', values.C2);
    setKnown('c2', '1/R1', values.R1);
    function Panel() {
      const sheet = useSheet()!;
      return <Parts channel={sheet.bank!.channels[1]} way={sheet.ways[1]} picture={picture} />;
    }
    render(<Panel />);
    const list = () => screen.getByRole('region', { name: 'Recovered parts' });
    expect(list().textContent).toMatch(/R2 of stage 1 must be/);
    act(() => setMarked('c2', '1/R2', { value: values.R2 / 2, trimmer: values.R2 }));
    expect(list().textContent).toMatch(/the trimmer reaches it, \d+ % up/);
    act(() => setMarked('c2', '1/R2', { trimmer: values.R2 / 50 }));
    expect(list().textContent).toMatch(/the trimmer falls short by/);
    act(() => setMarked('c2', '1/R2', { value: undefined }));
    expect(bank().channels[1].marked).toEqual({});
  });
});

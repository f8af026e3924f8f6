/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { valuesOf } from '@/core/sheet/stage';
import { stockLine } from '@/core/library/stock-words';
import { database } from '@/store/database';
import { addToDrawer } from '@/store/drawer';
import { undo, useSheet } from '@/store/sheet-session';
import type * as Here from '@/testing/engine';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { resetUi } from '../sheet/ui-state';
import { useTold } from '../shell/tell';
import {
  addSlot,
  bypassSlot,
  changeCrossover,
  changeSlot,
  moveSlot,
  removeSlot,
  setLoss,
  setPart,
  setWound,
  turnOver,
} from './actions';
import { CrossoverScreen } from './crossover-screen';
import { clearTuning } from './tuning';

jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/sheet/test',
}));
jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

const open = () => openNow({ ...shelfSpeaker(AT), id: 'test' });
afterEach(() =>
  act(() => {
    clearTuning();
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);
const way = (n: number) => present().ways[n];
const slots = (n: number) => way(n).stages.map((s) => s.slot?.is);

describe('what is done to a crossover', () => {
  beforeEach(open);

  test('slots are put in, moved, bypassed, asked otherwise and taken out, a step of history each', () => {
    const before = present();
    const id = addSlot('low', { is: 'pad', downDb: 2, ohms: 6, adjustable: false });
    expect(slots(0)).toEqual(['section', 'trap-across', 'pad']);
    moveSlot(id, -1);
    expect(slots(0)).toEqual(['section', 'pad', 'trap-across']);
    moveSlot('s1', -1);
    expect(slots(0)[0]).toBe('section');
    bypassSlot(id);
    expect(way(0).stages[1].bypassed).toBe(true);
    changeSlot(id, { is: 'pad', downDb: 6, ohms: 6, adjustable: false });
    expect(valuesOf(way(0).stages[1]).R1).toBeCloseTo(3, 1);
    expect(way(0).stages[1].bypassed).toBe(true);
    removeSlot(id);
    expect(slots(0)).toEqual(['section', 'trap-across']);
    for (let n = 0; n < 6; n++) undo();
    expect(present()).toEqual(before);
  });

  test('the sentence moves sections that follow it, and turns drivers over as textbooks do', () => {
    const before = valuesOf(way(0).stages[0]).L1;
    changeCrossover({ splitsHz: [1250] });
    expect(valuesOf(way(0).stages[0]).L1 / before).toBeCloseTo(2, 0);
    expect(way(1).to).toMatchObject({ inverted: true });
    changeCrossover({ order: 4 });
    expect(way(1).to).toMatchObject({ inverted: false });
    // What was asked for by hand is no section of the sentence any more.
    const section = way(1).stages[0];
    changeSlot(section.id, { ...section.slot, hz: 4000 } as never);
    changeCrossover({ splitsHz: [2000] });
    expect(slots(1)).toEqual(['section', 'pad']);
    expect(way(1).stages[0].slot).toMatchObject({ hz: 4000 });
    expect(way(0).stages[0].slot).toMatchObject({ hz: 2000, order: 4 });
  });

  test('values, wire and polarity are kept; what cannot be is refused and nothing changes', () => {
    setPart('s1', 'L1', 1.2e-3);
    expect(way(0).stages[0].parts.L1).toMatchObject({ value: 1.2e-3, chosen: 'hand' });
    setWound('s1', 'L1', { wireMetres: 2e-3, core: 'air' });
    setLoss('s1', 'C2', 0.05);
    expect(way(0).stages[0].parts.C2.losses).toEqual({ ohms: 0.05 });
    setLoss('s1', 'C2', null);
    expect(way(0).stages[0].parts.C2).not.toHaveProperty('losses');
    turnOver('low');
    expect(way(0).to).toMatchObject({ inverted: true });
    const before = present();
    expect(() => setPart('s1', 'L1', 0)).toThrow(/must be greater than zero/);
    expect(() => changeCrossover({ splitsHz: [-1] })).toThrow(
      'A split must be at least 1\u00a0mHz.',
    );
    expect(() => changeCrossover({ fromHz: 20_000 })).toThrow(/above the lower frequency/);
    expect(() =>
      addSlot('low', {
        is: 'pad',
        downDb: 2,
        ohms: 6,
        adjustable: false,
        lift: { hz: 9000, db: 5 },
      }),
    ).toThrow(/cannot give/);
    expect(present()).toEqual(before);
  });
});

function Shown() {
  const sheet = useSheet();
  return sheet?.crossover ? <CrossoverScreen sheet={sheet} crossover={sheet.crossover} /> : null;
}

describe('the screen', () => {
  beforeEach(async () => {
    const db = database();
    await db.drivers.bulkPut(demoDrivers().map((d) => ({ id: d.id, document: d })));
    open();
    render(<Shown />);
  });

  const built = async (name: RegExp) => {
    const row = await screen.findByRole('row', { name });
    const cell = () => within(row).getAllByRole('cell')[2].textContent;
    await waitFor(() => expect(cell()).not.toBe('–'));
    return cell();
  };

  test('figures follow what is done in the rows', async () => {
    const user = userEvent.setup({ delay: null });
    const before = await built(/^On axis/);
    const row = screen.getByRole('region', { name: 'Ways' });
    await user.click(within(row).getByRole('button', { name: /^high: (turned over|as it is)/ }));
    await waitFor(async () => expect(await built(/^On axis/)).not.toBe(before));
    const turned = within(row).getByRole('button', { name: /^high: (turned over|as it is)/ });
    expect(turned.getAttribute('aria-pressed')).toBe('false');
    await user.click(within(row).getByRole('button', { name: /^Driver of low/ }));
    await user.click(await screen.findByRole('menuitem', { name: 'Bass unit, 250 mm' }));
    expect(way(0).to).toMatchObject({ driver: 'demo-bass-250', name: 'Bass unit, 250 mm' });
  });

  test('tuning ends in what lies in the drawer, or says that nothing does; undo takes it back', async () => {
    const user = userEvent.setup({ delay: null });
    await built(/^On axis/);
    await user.click(screen.getByRole('button', { name: 'Tune' }));
    fireEvent.mouseDown(await screen.findByRole('combobox', { name: 'End in' }));
    await user.click((await screen.findAllByTitle('what lies in the drawer')).at(-1)!);
    const tune = screen.getByRole('button', { name: 'Tune on the true drivers' });
    await user.click(tune);
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Nothing lies in the drawer/);
    const microfarads = [3.3, 4.7, 6.8, 10, 22, 47, 68];
    await addToDrawer(microfarads.map((value) => stockLine(`1x ${value}u film`)));
    await user.click(await screen.findByRole('button', { name: 'Tune on the true drivers' }));
    const take = await screen.findByRole('button', { name: 'Take result 1' });
    await user.click(take);
    const taken = present().ways.flatMap((w) =>
      w.stages.flatMap((s) =>
        Object.entries(s.parts).flatMap(([id, { value }]) =>
          id.startsWith('C') ? [Math.round(value! * 1e8) / 100] : [],
        ),
      ),
    );
    expect(taken).toHaveLength(3);
    expect(microfarads).toEqual(expect.arrayContaining(taken));
    expect(new Set(taken).size).toBe(3);
    await waitFor(async () => expect(await built(/^On axis/)).toMatch(/^±1\.[0-2] dB$|^±0/));
    undo();
    expect(present().ways).toEqual(shelfSpeaker(AT).ways);
    await database().drawer.clear();
  });
});

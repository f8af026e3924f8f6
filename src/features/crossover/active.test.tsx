/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { boardOf } from '@/core/crossover/board/layout';
import { TIERS } from '@/core/crossover/board/tiers';
import { dipFor, isActive } from '@/core/crossover/active';
import { SCHOOLS } from '@/core/crossover/schools';
import { activeShelfSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { crossoverSchema } from '@/core/sheet/crossover-schema';
import { database } from '@/store/database';
import { undo, useSheet } from '@/store/sheet-session';
import type * as Here from '@/testing/engine';
import { AT, closeNow, openNow, present } from '@/testing/open-sheet';
import { retargetStage } from '../sheet/actions/targets';
import { setControl } from '../sheet/actions/controls';
import { useCommandStore } from '../shell/commands';
import { useTold } from '../shell/tell';
import { resetUi, useUi } from '../sheet/ui-state';
import {
  addActive,
  addWay,
  changeCrossover,
  changeDriver,
  gangEdge,
  removeWay,
  setAmplifiers,
  takeSchool,
} from './actions';
import { countCoupling, layPart, sizeBoard, takeTier } from './board-actions';
import { crossoverCommands } from './commands';
import { CrossoverScreen } from './crossover-screen';

jest.mock('next/navigation', () => ({
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/sheet/test',
}));
jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);
const way = (n: number) => present().ways[n];
const topologies = (n: number) => way(n).stages.map((s) => s.topology);

describe('what is done to an active crossover', () => {
  beforeEach(() => openNow({ ...activeShelfSpeaker(AT), id: 'test' }));

  test('a stage is put before the amplifier and designed otherwise, in its own way', () => {
    const before = present();
    const id = addActive('high', {
      topology: 'low-shelf-lift',
      target: { f0Hz: 3000, boost: 1.4 },
    });
    expect(topologies(1).at(-1)).toBe('low-shelf-lift');
    retargetStage(id, { f0Hz: 4000 });
    expect(way(1).stages.at(-1)!.target).toMatchObject({ f0Hz: 4000, boost: 1.4 });
    expect(way(0)).toEqual(before.ways[0]);
    changeDriver('high', { amplifier: { gainDb: 23, ohms: 0.05 } });
    expect(way(1).to).toMatchObject({ amplifier: { gainDb: 23 } });
    for (let n = 0; n < 3; n++) undo();
    expect(present()).toEqual(before);
  });

  test('a hump is taken down by a dip of its height and width', () => {
    addActive('low', dipFor({ hz: 830, db: 4, octaves: 1 }));
    expect(way(0).stages.at(-1)!.target).toMatchObject({ f0Hz: 830 });
    const { q, boost } = way(0).stages.at(-1)!.target!;
    expect(20 * Math.log10(boost!)).toBeCloseTo(-4, 9);
    expect(q).toBeCloseTo(Math.SQRT2, 9);
  });

  test('one knob moves the split, is turned, and is gone with its stages', () => {
    gangEdge({ name: 'Split', split: 0, ways: 'both', fromHz: 1500, toHz: 4000 });
    const [knob] = present().controls;
    expect(knob.moves).toHaveLength(8);
    setControl(knob.id, 1);
    expect(present().controls[0].at).toBe(1);
    expect(() =>
      gangEdge({ name: 'again', split: 0, ways: 'both', fromHz: 1500, toHz: 4000 }),
    ).toThrow(/changed by hand/);
    setAmplifiers(false);
    expect(present().controls).toEqual([]);
    expect(present().ways.some(isActive)).toBe(false);
  });
});

describe('what is done to a passive one', () => {
  beforeEach(() => openNow({ ...shelfSpeaker(AT), id: 'test' }));

  test('ways are added and taken away, each in one step', () => {
    const before = present();
    addWay('band');
    addWay('helper');
    expect(present().ways.map((w) => w.id)).toEqual(['low', 'high', 'top', 'helper']);
    expect(() => addWay('band')).toThrow(/at most 4 ways/);
    removeWay('high');
    expect(present().crossover!.splitsHz).toHaveLength(1);
    for (let n = 0; n < 3; n++) undo();
    expect(present()).toEqual(before);
  });

  test('a school is taken as a whole, in one step', () => {
    const before = present();
    takeSchool(SCHOOLS[3], undefined);
    expect(present().crossover).toMatchObject({ order: 4, alignment: 'linkwitz-riley' });
    expect(way(0).stages[0].slot).toMatchObject({ order: 4 });
    undo();
    expect(present()).toEqual(before);
  });

  test('parts are laid and turned on the board, and what is laid is kept', () => {
    const [coil] = boardOf({ ...present(), crossover: present().crossover! }).parts;
    layPart(coil, { xMetres: 0.08, yMetres: 0.06 });
    layPart({ ...coil, xMetres: 0.08, yMetres: 0.06 }, { lies: 'edge', degrees: 35 });
    countCoupling(true);
    sizeBoard({ widthMetres: 0.4 });
    const { board } = crossoverSchema.parse(present().crossover);
    expect(board).toMatchObject({ coupled: true, widthMetres: 0.4 });
    expect(board!.parts).toEqual([
      { stage: 's1', part: 'L1', xMetres: 0.08, yMetres: 0.06, lies: 'edge', degrees: 35 },
    ]);
    const before = present();
    expect(() => sizeBoard({ widthMetres: 50 })).toThrow(/at most 2 m/);
    expect(present()).toEqual(before);
  });

  test('parts of another build keep their values', () => {
    takeTier(TIERS[2]);
    expect(way(0).stages[0].parts.L1).toMatchObject({
      value: 820e-6,
      wound: { wireMetres: 1.4e-3 },
    });
    expect(way(0).stages[0].parts.C2.losses).toEqual({ ohms: TIERS[2].capacitor.ohms });
  });

  test('commands choose, bypass and move slots, and lenses have keys of their own', () => {
    const commands = crossoverCommands(present().ways);
    const run = (id: string) => act(() => void commands.find((c) => c.id === id)!.run());
    const keys = commands.flatMap((c) => c.keys ?? []);
    expect(new Set(keys).size).toBe(keys.length);
    run('next');
    run('next');
    expect(useUi.getState().stageId).toBe('s2');
    run('bypass');
    expect(way(0).stages[1].bypassed).toBe(true);
    run('left');
    expect(way(0).stages.map((s) => s.id)).toEqual(['s2', 's1']);
    run('turn-low');
    expect(way(0).to).toMatchObject({ inverted: true });
    run('lens-board');
    expect(present().view.lens).toBe('board');
  });
});

function Shown() {
  const sheet = useSheet();
  return sheet?.crossover ? <CrossoverScreen sheet={sheet} crossover={sheet.crossover} /> : null;
}

describe('the screen', () => {
  beforeEach(async () => {
    await database().drivers.bulkPut(demoDrivers().map((d) => ({ id: d.id, document: d })));
    openNow({ ...shelfSpeaker(AT), id: 'test' });
    render(<Shown />);
    await waitFor(async () => {
      const row = await screen.findByRole('row', { name: /^On axis/ });
      expect(within(row).getAllByRole('cell')[2].textContent).toMatch(/^±/);
    });
  });

  test('the sentence gives each way an amplifier; the rows tell gains and what stages add', async () => {
    const user = userEvent.setup({ delay: null });
    await user.click(screen.getByRole('button', { name: 'Amplifiers: One amplifier' }));
    await user.click(await screen.findByRole('menuitem', { name: /^An amplifier for each way/ }));
    expect(present().ways.every(isActive)).toBe(true);
    const rows = screen.getByRole('region', { name: 'Ways' });
    await within(rows).findByRole('button', { name: /^Amplifier gain of low/ });
    await within(rows).findByRole('button', { name: /^high: Trim −3\.4 dB.* −3\.\d dB/ });
    await user.click(screen.getByRole('button', { name: 'A knob for the split of low and high' }));
    await user.click(await screen.findByRole('button', { name: 'Put the knob in' }));
    // Two poles a way of order two: four tracks.
    expect(present().controls[0].moves).toHaveLength(4);
    await screen.findByRole('slider', { name: 'Control low to high' });
    expect(useCommandStore.getState().lists.has('crossover')).toBe(true);
  });

  test('the place form moves the listener and puts a baffle there; a wall needs it', async () => {
    const user = userEvent.setup({ delay: null });
    await user.click(screen.getByRole('button', { name: /Listened to from/ }));
    const wall = await screen.findByRole('checkbox', { name: /^Wall/ });
    expect(wall.hasAttribute('disabled')).toBe(true);
    await user.click(screen.getByRole('checkbox', { name: /^Baffle step/ }));
    expect(present().crossover!.surroundings).toEqual({ baffle: { widthMetres: 0.22 } });
    const far = screen.getByRole('spinbutton', { name: 'listener, forward, m' });
    await user.clear(far);
    await user.type(far, '3.5');
    await user.tab();
    expect(present().crossover!.listen.zMetres).toBe(3.5);
    await screen.findByRole('button', { name: /3\.5 m, baffle/ });
    await user.click(screen.getByRole('checkbox', { name: /^Baffle step/ }));
    expect(present().crossover).not.toHaveProperty('surroundings.baffle');
  });

  test('the board lens tells pairs of coils, wiring and steps; parts of another build are taken', async () => {
    const user = userEvent.setup({ delay: null });
    act(
      () =>
        void crossoverCommands([])
          .find((c) => c.id === 'lens-board')!
          .run(),
    );
    const pairs = await screen.findByRole('list', { name: 'Pairs of coils' });
    await waitFor(() => expect(within(pairs).getAllByRole('listitem')).toHaveLength(3));
    await user.click(screen.getByText('Wiring'));
    const wiring = await screen.findByRole('list', { name: 'Wiring' });
    expect(wiring.textContent).toMatch(/Common return:.*Soft dome, 25 mm \+/);
    await user.click(screen.getByText('Steps'));
    expect((await screen.findByRole('list', { name: 'Steps' })).textContent).toMatch(
      /fumes of flux/,
    );
    await user.click(screen.getByText('Cost'));
    await user.click(await screen.findByRole('button', { name: 'Take spare parts' }));
    expect(present().ways[0].stages[0].parts.L1.wound).toMatchObject({ wireMetres: 0.71e-3 });
  });

  test('strain tells what drivers and parts bear; louder is more', async () => {
    act(() => changeCrossover({ loudVolts: 20 }));
    act(
      () =>
        void crossoverCommands([])
          .find((c) => c.id === 'lens-strain')!
          .run(),
    );
    const watts = async () =>
      within(await screen.findByRole('row', { name: /^Soft dome/ })).getAllByRole('cell')[2]
        .textContent;
    const before = await watts();
    act(() => changeCrossover({ loudVolts: 40 }));
    await waitFor(async () => expect(await watts()).not.toBe(before));
    expect(parseFloat(await watts())).toBeGreaterThan(3.5 * parseFloat(before));
  });
});

/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { cellOf } from '@/core/cells';
import { voiceSheet } from '@/core/sheet/voice';
import { useSheet } from '@/store/sheet-session';
import type * as Here from '@/testing/engine';
import { AT, closeNow, openNow, present, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { addCell, giveControl } from './actions/stages';
import { CellFacts } from './cell-facts';
import { ControlLens } from './control-lens';
import { resetUi } from './ui-state';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('@/ui/chart/use-size', () => ({
  useSize: () => [{ current: null }, { width: 640, height: 300 }],
}));

function voice(id: string) {
  const cell = cellOf(id)!;
  return voiceSheet({
    id: 'v',
    title: 'Voice',
    at: AT,
    cell,
    ...cell.usual,
    source: { name: 'Oscillator', ohms: 1000, volts: 1 },
    load: { name: 'Amplifier', ohms: 47_000 },
  });
}

function Open() {
  return <ControlLens sheet={useSheet()!} />;
}
const show = (id: string) => {
  act(() => void openNow(voice(id)));
  render(<Open />);
};
const control = () => present().controls[0];
const words = () => document.body.textContent;
/** Choose what stands in the place of a marked word. */
async function choose(word: RegExp, line: RegExp) {
  await user.click(await screen.findByRole('button', { name: word }));
  await user.click(await screen.findByRole('menuitem', { name: line }));
}

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);

test('a voice shows how far it reaches, how far it is from its law, and place by place', async () => {
  show('ota-cascade');
  await screen.findByText(/Reaches/);
  expect(screen.getByRole('img', { name: /Away from 1 V an octave/ })).toBeTruthy();
  expect(words()).toMatch(/at worst [\d.]+ cents; scale .* leave ±[\d.]+: trim at/);
  await user.click(screen.getByText('Table'));
  const table = screen.getByRole('table', { name: 'What the control does' });
  expect(within(table).getAllByRole('row')).toHaveLength(14);
  expect(within(table).getByRole('columnheader', { name: 'at 40 °C' })).toBeTruthy();
  expect(table.textContent).not.toMatch(/NaN|undefined/);
});

test('what drives it is said in words that are changed where they stand', async () => {
  show('ota-one-pole');
  await choose(/What meets its drift/, /Nothing/);
  expect(control().converter!.ppmPerKelvin).toBe(0);
  await choose(/^Converter/, /ideal/);
  expect(control().converter).toBeUndefined();
  await choose(/Law of the control/, /in proportion/);
  expect(control()).toMatchObject({ is: 'amps', moves: [{ law: 'even' }] });
  await choose(/Law of the control/, /octave/);
  expect(control()).toMatchObject({ is: 'volts', moves: [{ law: 'by ratio' }] });
});

test('a table is typed line by line, and a line that goes back is named', async () => {
  show('ota-one-pole');
  await choose(/Law of the control/, /table/);
  await user.click(await screen.findByRole('button', { name: /5 places/ }));
  const field = await screen.findByRole('textbox', { name: 'Table of the control' });
  await user.clear(field);
  await user.type(field, '0 1u\n4 2u\n2 3u\n8.644 400u');
  await user.click(screen.getByRole('button', { name: 'Use this table' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/Line 3 goes back/);
  await user.clear(field);
  await user.type(field, '0 1u\n4.322 2u\n8.644 400u');
  await user.click(screen.getByRole('button', { name: 'Use this table' }));
  await waitFor(() => expect(control().moves[0].table).toHaveLength(1));
  expect(control().moves[0]).toMatchObject({ from: 1e-6, to: 400e-6 });
  expect(control().moves[0].table![0].at).toBeCloseTo(0.5, 3);
});

test('a knob has no law to be away from', async () => {
  show('rc-knob');
  await screen.findByText(/Reaches/);
  expect(screen.queryByText('Away from its law')).toBeNull();
  expect(screen.getByRole('img', { name: /Cut-off: 0 %/ })).toBeTruthy();
});

test('why a cell is as it is: textbook beside solved, and the numbers put in', async () => {
  act(() => void openNow(voice('treadle')));
  const [stage] = stages();
  render(<CellFacts stage={stage} names={new Map()} />);
  const table = await screen.findByRole('table', { name: 'Textbook and solved' });
  expect(within(table).getByRole('row', { name: /^Q/ }).textContent).toMatch(/Q[\d.]+/);
  expect(words()).toMatch(/collector at 4\.\d+ V/);
});

test('any cell comes with its controls, and a ladder of transconductors is given its own', () => {
  act(() => void openNow());
  const count = stages().length;
  act(() => void addCell(cellOf('diode-sections')!, null));
  expect(stages()).toHaveLength(count + 1);
  expect(control().moves[0]).toMatchObject({ stage: stages()[0].id, part: 'VC' });
  expect(() => giveControl(stages()[1].id)).toThrow(/No transconductance/);
});

test('the gate of light: its paths, and what ignoring a small capacitor would have said', async () => {
  act(() => void openNow(voice('photocell-gate')));
  const [stage] = stages();
  render(<CellFacts stage={stage} names={new Map()} />);
  const paths = await screen.findByRole('table', { name: 'Its paths' });
  expect(within(paths).getAllByRole('row')).toHaveLength(5);
  expect(within(paths).getByRole('row', { name: /as it stands/ }).textContent).toMatch(/both/);
  const small = screen.getByRole('table', { name: /ignoring a small capacitor/ });
  expect(within(small).getByRole('row', { name: /without C3/ })).toBeTruthy();
});

/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { partNames } from '@/core/sheet/path-circuit';
import { drawnParts } from '@/core/sheet/stage';
import { sessionHistory } from '@/store/session-state';
import { undo, useSheet } from '@/store/sheet-session';
import { closeNow, newSheet, openNow, present, stages } from '@/testing/open-sheet';
import { HotkeyBindings } from '../shell/hotkeys';
import { addKnob } from './actions/controls';
import { Controls } from './controls';
import { KnobForm } from './knob-form';
import { TravelLens } from './travel-lens';
import { resetUi } from './ui-state';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  act(() => void openNow());
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
  }),
);

const PLAN = {
  as: 'variable',
  parts: ['R1', 'R2'],
  trackOhms: 47_000,
  seriesOhms: 1000,
  taper: 'linear',
} as const;

const kinds = () => drawnParts(stages()[0]).map((p) => p.kind);

function Form() {
  const sheet = useSheet()!;
  const [stage] = sheet.ways[0].stages;
  return (
    <KnobForm
      stage={stage}
      part="R1"
      names={partNames(sheet.ways[0].stages).get(stage.id)!}
      onDone={() => undefined}
    />
  );
}

test('the form puts a knob in, in one step, and shows its travel', async () => {
  render(<Form />);
  const form = within(screen.getByRole('form', { name: 'A knob for R1' }));
  const name = form.getByRole('textbox', { name: 'name' });
  await user.clear(name);
  await user.type(name, 'Cut-off');
  await user.click(form.getByRole('button', { name: 'Put the knob in' }));
  expect(present().controls).toMatchObject([{ name: 'Cut-off', is: 'turn' }]);
  expect(kinds()).toContain('potentiometer');
  expect(present().view.lens).toBe('travel');
  expect(sessionHistory().pastStates).toHaveLength(1);
  act(() => undo());
  expect(present().controls).toEqual([]);
  expect(kinds()).not.toContain('potentiometer');
});

test('a track that cannot be read is said where it was typed, and nothing changes', async () => {
  render(<Form />);
  const track = screen.getByRole('textbox', { name: 'track' });
  await user.clear(track);
  await user.type(track, 'wide');
  await user.click(screen.getByRole('button', { name: 'Put the knob in' }));
  expect(screen.getByRole('alert').textContent).toMatch(/“wide” is not a resistance/);
  expect(present().controls).toEqual([]);
});

function Knobs() {
  return (
    <>
      <HotkeyBindings />
      <Controls sheet={useSheet()!} />
    </>
  );
}

test('a knob is bound to a key that is free, which turns it up, and down with Shift', async () => {
  act(() => void addKnob('s1', PLAN, 'Cut-off'));
  render(<Knobs />);
  const from = present().controls[0].at;
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Key of Cut-off' }));
  await user.click(await screen.findByText('key J'));
  expect(present().controls[0].key).toBe('j');
  await user.keyboard('jj');
  expect(present().controls[0].at).toBeCloseTo(from + 0.04, 6);
  await user.keyboard('{Shift>}j{/Shift}');
  expect(present().controls[0].at).toBeCloseTo(from + 0.02, 6);
});

function Lens() {
  return <TravelLens sheet={useSheet()!} />;
}

test('the travel is listed; a taper is taken, and the knob stretched over a range', async () => {
  act(
    () =>
      void openNow(
        newSheet({
          kind: 'low-pass',
          shape: 'butterworth',
          order: 2,
          edgeHz: 1000,
          topology: 'equal-part-low-pass',
        }),
      ),
  );
  act(() => void addKnob('s1', PLAN, 'Cut-off'));
  render(<Lens />);
  const table = await screen.findByRole('table', { name: 'What the travel does' });
  expect(within(table).getAllByRole('row')).toHaveLength(12);
  await user.click(screen.getByRole('button', { name: /^audio/ }));
  expect(stages()[0].parts.P1.model).toEqual({ name: 'audio track', model: { taper: 'audio' } });
  expect(stages()[0].parts.P2.model).toEqual(stages()[0].parts.P1.model);

  const reach = within(await screen.findByRole('form', { name: 'Reach of the knob' }));
  await user.type(reach.getByRole('textbox', { name: 'Wanted where the travel begins' }), '300');
  await user.type(reach.getByRole('textbox', { name: 'Wanted where it ends' }), '3k');
  await user.click(reach.getByRole('button', { name: 'Stretch it over that' }));
  await waitFor(() => expect(present().controls[0].reach).toMatchObject({ from: 300, to: 3000 }));
  await waitFor(() =>
    expect(screen.getByRole('form', { name: 'Reach of the knob' }).textContent).toMatch(
      /covers what is wanted/,
    ),
  );
});

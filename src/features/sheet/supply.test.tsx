/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { partsList } from '@/core/sheet/parts-list';
import { useSheet } from '@/store/sheet-session';
import { closeNow, openNow, present } from '@/testing/open-sheet';
import { setModel } from './actions/parts';
import { useEvaluations } from './evaluations';
import { RestLens } from './rest-lens';
import { SupplyForm } from './supply-form';
import { swapped } from './swap-model';
import { resetUi, useUi } from './ui-state';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

beforeEach(() => act(() => void openNow()));
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    useEvaluations.setState({ evaluation: null, problem: null, stale: false });
  }),
);

function Supply() {
  return <SupplyForm supply={useSheet()!.parts.supply} />;
}

test('a single rail makes half of it, which the parts list knows', async () => {
  const user = userEvent.setup({ delay: null });
  render(<Supply />);
  const count = () => partsList(present()).lines.reduce((sum, line) => sum + line.each, 0);
  const before = count();
  await user.click(within(screen.getByRole('radiogroup')).getByText('one rail'));
  expect(present().parts.supply).toMatchObject({ is: 'single', volts: 15 });
  expect(count()).toBe(before + 3);
  const names = partsList(present()).lines.flatMap((line) => line.names);
  expect(names).toEqual(expect.arrayContaining(['reference.upper', 'reference.bypass']));
  await user.click(screen.getByText('two rails'));
  expect(count()).toBe(before);
});

test('what stands at the outputs at rest stands on the drawing as long as it is looked at', async () => {
  function Lens() {
    return <RestLens sheet={useSheet()!} />;
  }
  const { unmount } = render(<Lens />);
  await waitFor(() => expect(Object.keys(useUi.getState().atRest)).toEqual(['A1', 'A2']));
  expect(useUi.getState().atRest.A1).toMatch(/V$/);
  unmount();
  expect(useUi.getState().atRest).toEqual({});
});

test('another device leaves the curve of the one before on the picture', () => {
  const evaluation = new SheetEvaluator().evaluate(present());
  act(() => useEvaluations.setState({ evaluation }));
  const { trace } = evaluation.layers.find((l) => l.id === 'built')!;
  const slow = { name: 'slow', model: { gainBandwidthHz: 1e5, dcGainDb: 90 } };
  act(() => swapped('the old one', () => setModel('s1', 'A1', slow), 'swapped'));
  expect(present().ways[0].stages[0].parts.A1.model).toEqual(slow);
  expect(useUi.getState().laidOver).toEqual([{ name: 'with the old one', look: 'trial', trace }]);
});

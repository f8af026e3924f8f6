/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type * as Here from '@/testing/engine';
import { stageOfCircuit } from '@/core/sheet/own-stage';
import type { Sheet } from '@/core/sheet/schema';
import { closeNow, newSheet, openNow, stages } from '@/testing/open-sheet';
import { clearFitting } from './fitting';
import { FitForm } from './fit-form';

jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));
jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});

afterEach(() =>
  act(() => {
    clearFitting();
    closeNow();
  }),
);

/** One RC section drawn by hand, whose edge is wanted at 1 kHz and lies at 1.59 kHz. */
function drawnSheet(): Sheet {
  const base = newSheet();
  const stage = stageOfCircuit(
    {
      format: 'jaunty-reed/circuit',
      version: 1,
      title: 'One section',
      ground: '0',
      parts: [
        { id: 'R1', kind: 'resistor', a: 'in', b: 'out', ohms: 10e3 },
        { id: 'C1', kind: 'capacitor', a: 'out', b: '0', farads: 10e-9 },
      ],
    },
    { id: 's1' },
  );
  return {
    ...base,
    ways: [
      {
        ...base.ways[0],
        stages: [stage],
        to: { is: 'load', name: 'Load', ohms: null, farads: null },
      },
    ],
    source: { name: 'Source', ohms: 0, volts: 1 },
    readings: [
      {
        id: 'r1',
        measure: { measure: 'edge', downDb: 3.0103, side: 'upper', reference: { from: 'plateau' } },
        wanted: { is: 'near', value: 1000, tolerance: 0.03, relative: true },
      },
    ],
  };
}

test('an own circuit is fitted to what is wanted of its readings', async () => {
  const user = userEvent.setup({ delay: null });
  act(() => void openNow(drawnSheet()));
  render(<FitForm />);
  await user.click(screen.getByRole('button', { name: 'Fit all parts together' }));
  await screen.findByText('No part of this path has a value to be chosen.');
  await user.click(screen.getByRole('combobox', { name: 'Come near to' }));
  await user.click(await screen.findByTitle('what is wanted of the readings'));
  await user.click(screen.getByRole('button', { name: 'Fit all parts together' }));
  await waitFor(() => expect(stages()[0].parts.R1.chosen).toBe('fit'));
  const { R1, C1 } = stages()[0].parts;
  const edge = 1 / (2 * Math.PI * R1.value! * C1.value!);
  expect(Math.abs(edge / 1000 - 1)).toBeLessThan(0.03);
  await screen.findAllByText('met');
});

test('without a wish there is nothing but the design to come near to', async () => {
  const user = userEvent.setup({ delay: null });
  act(() => void openNow({ ...drawnSheet(), readings: [] }));
  render(<FitForm />);
  await user.click(screen.getByRole('combobox', { name: 'Come near to' }));
  await screen.findAllByTitle('what the path is designed to be');
  expect(screen.queryByTitle('what is wanted of the readings')).toBeNull();
});

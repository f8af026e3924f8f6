/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type * as Here from '@/testing/engine';
import userEvent from '@testing-library/user-event';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { makeStage } from '@/core/sheet/make';
import { partNames } from '@/core/sheet/path-circuit';
import type { Sheet } from '@/core/sheet/schema';
import { drawingOf, drawnParts, valuesOf } from '@/core/sheet/stage';
import { topologyOf } from '@/core/topologies';
import { useSheet } from '@/store/sheet-session';
import { usePreferences } from '@/store/preferences';
import { closeNow, LOW_PASS, newSheet, openNow, present, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { graftStage } from './actions/wiring';
import { CircuitPanel } from './circuit-panel';
import { useEvaluations } from './evaluations';
import { PathStrip } from './path-strip';
import { resetUi, setUi, useUi } from './ui-state';

jest.mock('@/workers/engine', () => {
  const { engineHere } = jest.requireActual<typeof Here>('@/testing/engine');
  return { engine: () => engineHere };
});
jest.mock('@/ui/chart/use-size', () => ({
  useSize: () => [{ current: null }, { width: 520, height: 400 }],
}));

const evaluate = (sheet: Sheet) =>
  useEvaluations.setState({
    evaluation: new SheetEvaluator().evaluate(sheet),
    problem: null,
    stale: false,
  });
function Sheet_({ strip = true }: { strip?: boolean }) {
  const sheet = useSheet()!;
  const chosen = useUi((s) => s.stageId);
  const all = sheet.ways[0].stages;
  const stage = all.find((s) => s.id === chosen) ?? all[0];
  return (
    <>
      {strip && <PathStrip sheet={sheet} selected={stage?.id} />}
      <CircuitPanel sheet={sheet} stage={stage} />
    </>
  );
}
function shown(sheet = newSheet(), strip = true) {
  act(() => {
    openNow(sheet);
    evaluate(sheet);
  });
  return render(<Sheet_ strip={strip} />);
}
const part = (name: string) => screen.getByRole('button', { name: new RegExp(`^${name}[,:]`) });
const schematic = () => screen.getByRole('group', { name: /^Schematic/ });

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    resetUi();
    closeNow();
    usePreferences.getState().set({ mark: 'point', resistors: 'box' });
    useEvaluations.setState({ evaluation: null, problem: null, stale: false });
    useTold.setState({ waiting: [], begun: false });
  }),
);

describe('the schematic', () => {
  test('has every part with its value, and the exact one beside it where they differ', () => {
    shown();
    const [stage] = stages();
    for (const { id } of drawnParts(stage)) expect(part(id)).toBeDefined();
    const words = [...schematic().querySelectorAll('text')].map((t) => t.textContent);
    expect(words.some((w) => w?.startsWith('exact '))).toBe(true);
    expect(screen.getByText(/^Stage 1 of 2 · /)).toBeDefined();
  });

  test('a value is edited where it stands, by pointer and by keyboard', async () => {
    shown();
    await user.click(part('R1'));
    const field = screen.getByRole('textbox', { name: /R1/ });
    await user.clear(field);
    await user.type(field, '12k{Enter}');
    expect(stages()[0].parts.R1).toMatchObject({ value: 12_000, chosen: 'hand' });
    act(() => part('C1').focus());
    expect(useUi.getState().pointedPart).toBe('s1/C1');
    await user.keyboard('{Enter}');
    await user.clear(screen.getByRole('textbox', { name: /C1/ }));
    await user.keyboard('47n{Enter}');
    expect(valuesOf(stages()[0]).C1).toBe(47e-9);
  });

  test('what is no value stays in its field, and Escape gives up', async () => {
    shown();
    const before = valuesOf(stages()[0]).R1;
    await user.click(part('R1'));
    const field = screen.getByRole('textbox', { name: /R1/ });
    await user.clear(field);
    await user.type(field, '0{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/greater than zero|at least/);
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(valuesOf(stages()[0]).R1).toBe(before);
  });

  test('the whole path is drawn with its parts numbered through', async () => {
    shown();
    await user.click(screen.getByText('Path'));
    expect(screen.getByText('Whole path')).toBeDefined();
    const count = stages().reduce((n, s) => n + drawnParts(s).length, 0);
    const parts = within(schematic()).getAllByRole('button');
    expect(parts).toHaveLength(count);
    expect(new Set(parts.map((p) => p.getAttribute('aria-label')!.split(/[,:]/)[0])).size).toBe(
      count,
    );
  });

  test('resistors are boxes or zigzags, numbers have the mark that the person writes', () => {
    shown();
    const box = part('R1').innerHTML;
    act(() => usePreferences.getState().set({ resistors: 'zigzag', mark: 'comma' }));
    expect(part('R1').innerHTML).not.toBe(box);
    expect(schematic().textContent).not.toMatch(/\d\.\d/);
  });

  test('parts of an own drawing are moved by the keys, others stand', async () => {
    const { unmount } = shown();
    expect(document.querySelector('[data-movable]')).toBeNull();
    unmount();
    act(() => {
      openNow(newSheet());
      graftStage('s1', { do: 'across', part: 'R2', new: { kind: 'capacitor', id: 'C9' } });
      evaluate(present());
    });
    render(<Sheet_ strip={false} />);
    const at = (id: string) =>
      drawingOf(stages()[0]).symbols.find((s) => 'id' in s && s.id === id)!.at;
    const name = partNames(stages()).get('s1')!.get('C9')!;
    // Each step is taken, or it is said why the part cannot stand there.
    const steps = { ArrowUp: [0, -1], ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, 1] };
    let taken = 0;
    for (const [key, [dx, dy]] of Object.entries(steps)) {
      const [x, y] = at('C9');
      const said = useTold.getState().waiting.length;
      act(() => part(name).focus());
      fireEvent.keyDown(part(name), { key, altKey: true });
      await waitFor(() =>
        expect(String(at('C9')) !== `${x},${y}` || useTold.getState().waiting.length > said).toBe(
          true,
        ),
      );
      if (String(at('C9')) !== `${x},${y}`) {
        expect(at('C9')).toEqual([x + dx, y + dy]);
        taken++;
      }
    }
    expect(taken).toBeGreaterThan(0);
    const movable = document.querySelectorAll<SVGElement>('[data-movable]');
    expect(movable.length).toBe(drawnParts(stages()[0]).length);
  });

  test('a device is chosen for one part alone', async () => {
    shown();
    const [op] = drawnParts(stages()[0]).filter((p) => p.kind === 'op-amp');
    await user.click(part(op.id));
    const choice = await screen.findByRole('menuitem', { name: /FET-input/ });
    await user.click(choice);
    expect(stages()[0].parts[op.id]?.model?.name).toMatch(/FET-input/);
    expect(useTold.getState().waiting).toHaveLength(1);
  });

  test('an empty path says what to do', () => {
    const sheet = newSheet();
    shown({ ...sheet, ways: [{ ...sheet.ways[0], stages: [] }] });
    expect(screen.getByText(/The path has no stage\. Add one at the joint above\./)).toBeDefined();
  });
});

test('a value that a control moves is shown as it is moved', async () => {
  const sheet = newSheet();
  const [stage] = sheet.ways[0].stages;
  const [id] = Object.keys(valuesOf(stage)).filter((p) => p.startsWith('R'));
  const move = { stage: stage.id, part: id, quantity: 'ohms', from: 1000, to: 100_000 };
  const name = partNames(sheet.ways[0].stages).get(stage.id)!.get(id)!;
  shown({
    ...sheet,
    controls: [{ id: 'c', name: 'C', is: 'volts', at: 0.5, moves: [{ ...move, law: 'by ratio' }] }],
  });
  await waitFor(() => expect(part(name).getAttribute('aria-label')).toMatch(/10k/));
});

describe('why the numbers are what they are', () => {
  const open = async (name: RegExp) => {
    await user.click(screen.getByRole('button', { name }));
    return within(await screen.findByRole('tooltip'));
  };

  test('every part’s formula, and what the stage is designed for', async () => {
    shown();
    const facts = await open(/^Why\?$/);
    expect(facts.getByText('Corner f₀')).toBeDefined();
    expect(facts.getByText(/Designed for/)).toBeDefined();
    for (const title of ['Tuning.', 'Not for.', 'Outputs.', 'Sensitivity.'])
      expect(facts.getByText(title)).toBeDefined();
  });

  test('a chosen part’s alone, with both ways back', async () => {
    shown();
    const real = valuesOf(stages()[0]).R1;
    act(() => setUi({ partId: 's1/R1' }));
    const facts = await open(/^Why R1\?$/);
    await user.click(facts.getByRole('button', { name: 'Use the exact value' }));
    expect(valuesOf(stages()[0]).R1).not.toBe(real);
    await user.click(facts.getByRole('button', { name: 'Use the nearest real value' }));
    expect(valuesOf(stages()[0]).R1).toBe(real);
  });

  test('a stage that was wired otherwise is told what of its formulas holds', async () => {
    act(() => {
      openNow();
      graftStage('s1', { do: 'across', part: 'R2', new: { kind: 'capacitor', value: 1e-9 } });
      evaluate(present());
    });
    render(<Sheet_ strip={false} />);
    const facts = await open(/^Why\?$/);
    expect(facts.getByRole('note').textContent).toMatch(/formulas (no longer )?hold/);
  });

  test('formulas of parts that are gone are not shown as numbers', async () => {
    act(() => {
      openNow();
      graftStage('s1', { do: 'remove', part: 'C1' });
      evaluate(present());
    });
    render(<Sheet_ strip={false} />);
    const facts = await open(/^Why\?$/);
    expect(facts.getByRole('note').textContent).toMatch(/C1, which the circuit no longer has/);
    expect(facts.queryByText('Corner f₀')).toBeNull();
  });
});

describe('the path', () => {
  const card = (n: number) => screen.getByRole('button', { name: new RegExp(`^Stage ${n},`) });
  const menu = async (n: number, item: string) => {
    await user.click(screen.getByRole('button', { name: `Actions for stage ${n}` }));
    // Menus that were closed stand there still, out of sight; the last is the open one.
    const found = await screen.findAllByRole('menuitem', { name: item });
    await user.click(found[found.length - 1]);
  };

  test('cards say what a stage does, and choose the circuit that is shown', async () => {
    shown();
    expect(card(1).textContent).toMatch(/3k4|3\.4k|3k3|3k5/);
    expect(card(1).getAttribute('aria-pressed')).toBe('true');
    await user.click(card(2));
    expect(card(2).getAttribute('aria-pressed')).toBe('true');
    expect(screen.getByText(/^Stage 2 of 2 · /)).toBeDefined();
  });

  test('a stage is bypassed, doubled, moved and removed from its menu', async () => {
    shown();
    const [first, second] = stages().map((s) => s.id);
    await menu(1, 'Bypass');
    expect(stages()[0].bypassed).toBe(true);
    expect(card(1).textContent).toMatch(/bypassed/);
    await menu(1, 'Put back into the path');
    await menu(1, 'Move right');
    expect(stages().map((s) => s.id)).toEqual([second, first]);
    await menu(2, 'Duplicate');
    expect(stages()).toHaveLength(3);
    await menu(1, 'Remove');
    expect(stages().map((s) => s.id)).not.toContain(second);
  });

  test('the first cannot go left, the last not right', async () => {
    shown();
    await user.click(screen.getByRole('button', { name: 'Actions for stage 1' }));
    const left = await screen.findByRole('menuitem', { name: 'Move left' });
    expect(left.getAttribute('aria-disabled')).toBe('true');
  });

  test('joints say what is lost, and a heavy one is marked by a sign', () => {
    const sheet = newSheet(LOW_PASS);
    const [way] = sheet.ways;
    const passive = makeStage('s1', topologyOf('rc-low-pass'), { f0Hz: 3400 }, sheet.parts, 'hand');
    shown({
      ...sheet,
      source: { ...sheet.source, ohms: 10_000 },
      ways: [{ ...way, stages: [passive], to: { is: 'load', name: '', ohms: 1e3, farads: null } }],
    });
    const joints = screen.getAllByRole('button', {
      name: /^Joint, loses .* dB; add a stage here$/,
    });
    expect(joints).toHaveLength(2);
    expect(screen.getAllByText(/^! −\d+\.\d\d dB$/).length).toBeGreaterThan(0);
  });
});

/** @jest-environment jsdom */
import '@/testing/dom';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ASK_KINDS, hasShape, placedBy, type Ask, type AskKind } from '@/core/design/ask';
import { topologiesFor } from '@/core/design/consistent';
import { EDGES, SHAPES } from '@/core/response/prototypes';
import { useSheet } from '@/store/sheet-session';
import { closeNow, LOW_PASS, newSheet, openNow, present, stages } from '@/testing/open-sheet';
import { useTold } from '../shell/tell';
import { AskSentence } from './ask-sentence';
import { choicesOf, EDGE_WORDS, KIND_WORDS, orderChoices, SHAPE_WORDS } from './ask-words';

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
});
afterEach(() =>
  act(() => {
    closeNow();
    useTold.setState({ waiting: [], begun: false });
  }),
);

function Sentence() {
  const { ask, ways } = useSheet()!;
  const made = ways[0].stages.flatMap((s) => s.topology ?? []).join(' ');
  return <AskSentence ask={ask} made={made} />;
}
function shown(ask: Ask = LOW_PASS) {
  act(() => void openNow(newSheet(ask)));
  render(<Sentence />);
}
const text = () => document.querySelector('p')!.textContent.replace(/\s+/g, ' ');
const word = (label: string) => screen.getByRole('button', { name: new RegExp(`^${label}: `) });
const choose = async (label: string, line: string) => {
  await user.click(word(label));
  await user.click(await screen.findByRole('menuitem', { name: line }));
};
const type = async (label: string, value: string) => {
  await user.click(word(label));
  const field = screen.getByRole('textbox', { name: label });
  await user.clear(field);
  await user.type(field, `${value}{Enter}`);
};

test('a low-pass reads as a sentence', () => {
  shown();
  expect(text()).toMatch(
    /^Pass everything below 3\.4\skHz, flat top, order 4, edge at −3 dB, gain 0\sdB, as two \S.*stages/,
  );
});

test('every marked word changes the ask, and the stages follow', async () => {
  shown();
  await choose('Kind', 'Pass everything above (high-pass)');
  expect(present().ask.kind).toBe('high-pass');
  await choose('Shape', 'even delay (Bessel)');
  await choose('Order', 'order 2, 12 dB per octave');
  await type('Edge frequency', '30');
  await type('Gain', '6');
  expect(present().ask).toMatchObject({ shape: 'bessel', order: 2, edgeHz: 30, gainDb: 6 });
  expect(stages()).toHaveLength(1);
  expect(text()).toMatch(/^Pass everything above 30\sHz, even delay, order 2/);
});

test('what a shape needs is asked for where it has it', async () => {
  shown();
  expect(screen.queryByRole('button', { name: /^Ripple/ })).toBeNull();
  await choose('Shape', 'steepest, ripples on both sides (elliptic)');
  await type('Ripple', '0.5');
  await type('Stop band', '40');
  expect(present().ask).toMatchObject({ rippleDb: 0.5, stopbandDb: 40 });
  expect(text()).toMatch(/steepest by 0\.5\sdB, beyond 40\sdB down/);
});

test('a band is changed at either edge, a centre by its Q', async () => {
  shown({ kind: 'band-pass', shape: 'butterworth', order: 2, lowerHz: 300, upperHz: 3000 });
  await type('Upper edge', '3k4');
  expect(present().ask).toMatchObject({ lowerHz: 300, upperHz: 3400 });
  await choose('Kind', 'Take out one frequency (notch)');
  await type('Centre frequency', '50');
  await type('Q', '8');
  expect(present().ask).toMatchObject({ kind: 'notch', centreHz: 50, q: 8 });
  expect(present().ask.lowerHz).toBeUndefined();
});

test('another topology is taken from those that can do it', async () => {
  shown();
  const able = topologiesFor(LOW_PASS);
  const other = able.find((t) => t.id !== stages()[0].topology && t.kind === 'low-pass')!;
  await choose('Topology', other.name);
  expect(stages().some((s) => s.topology === other.id)).toBe(true);
});

test('a value beyond all bounds is refused beside its field', async () => {
  shown();
  await type('Edge frequency', '50G');
  expect(screen.getByRole('alert').textContent).toMatch(/edge must be at most/);
  expect(present().ask.edgeHz).toBe(3400);
});

test('an emptied gain is as it comes', async () => {
  shown();
  await type('Gain', ' ');
  expect(present().ask.gainDb).toBeUndefined();
  expect(within(word('Gain')).getByText('as it comes')).toBeDefined();
});

/** An ask of every kind. */
const asked = (kind: AskKind): Ask => ({
  kind,
  shape: 'butterworth',
  ...(kind === 'all-pass' || hasShape(kind) ? { order: 2 } : {}),
  ...(placedBy(kind) === 'edge'
    ? { edgeHz: 1000 }
    : placedBy(kind) === 'band'
      ? { lowerHz: 300, upperHz: 3000 }
      : { centreHz: 1000, q: 2 }),
  ...(['peak', 'low-shelf', 'high-shelf', 'tilt'].includes(kind) ? { gainDb: 6 } : {}),
});

test.each(ASK_KINDS)('%s: its sentence begins with its words and names its frequency', (kind) => {
  shown(asked(kind));
  expect(text().startsWith(KIND_WORDS[kind][0])).toBe(true);
  expect(text()).toMatch(/300\sHz to 3\skHz|1\skHz/);
  expect(text()).not.toMatch(/undefined|NaN/);
});

test('words: every choice has its word and its line, no two alike', () => {
  for (const choices of [
    choicesOf(KIND_WORDS, ASK_KINDS),
    choicesOf(SHAPE_WORDS, SHAPES),
    choicesOf(EDGE_WORDS, EDGES),
    orderChoices(LOW_PASS),
  ]) {
    for (const { word: said, line } of choices) {
      expect(said.length).toBeGreaterThan(2);
      expect(line!.length).toBeGreaterThan(2);
    }
    expect(new Set(choices.map((c) => c.line)).size).toBe(choices.length);
  }
  expect(orderChoices({ ...LOW_PASS, shape: 'linkwitz-riley' }).map((c) => c.value)).toEqual([
    2, 4, 6, 8,
  ]);
});

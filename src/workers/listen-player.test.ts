import { SLICE } from '@/core/listen/heard';
import { USUAL_PROGRAM, type Program } from '@/core/listen/program';
import { newSheet } from '@/testing/open-sheet';
import type { FromFeeder, PlayerState, ToFeeder, ToPlayer } from './listen-messages';
import { ListenPlayer } from './listen-player';

/** An audio thread by hand: what was sent to it, and how far it says it is. */
function feeder() {
  const port = {
    onmessage: null as null | ((event: { data: FromFeeder }) => void),
    blocks: [] as ToFeeder[],
    postMessage: (block: ToFeeder) => port.blocks.push(block),
    /** The sample up to which something lies there. */
    get end() {
      return Math.max(0, ...port.blocks.map(({ at, samples }) => at + samples.length));
    },
    tell: (played: number, missed = 0) => port.onmessage!({ data: { played, missed } }),
  };
  return port;
}

/** A player whose turns are taken by hand. */
function begun(callMilliseconds = 0.01) {
  const said: PlayerState[] = [];
  const turns: (() => void)[] = [];
  let now = 0;
  const player = new ListenPlayer(
    (state) => said.push(state),
    (run) => turns.push(run),
    () => (now += callMilliseconds),
  );
  const port = feeder();
  player.hear({ is: 'begin', rate: 48_000, port: port as unknown as MessagePort });
  const settle = () => {
    while (turns.length > 0) turns.shift()!();
  };
  const wait = (milliseconds: number) => (now += milliseconds);
  const state = () => said[said.length - 1];
  return { player, port, settle, state, turns, wait };
}

const program = { ...USUAL_PROGRAM, sound: 'sine' as const, opens: 0, notes: [] };

test('nothing is sent before there is something to hear; then it stays ahead of what was played', () => {
  const { player, port, settle, state, wait } = begun();
  port.tell(0);
  expect(port.end).toBe(0);
  player.hear({ is: 'program', program });
  player.hear({ is: 'load', side: 'a', sheet: newSheet(), way: 0 });
  expect(port.end).toBe(0);
  settle();
  expect(state().sides.a!.times).toBeGreaterThanOrEqual(1);
  expect(state().loading).toBe(false);
  const ahead = port.end;
  expect(ahead).toBeGreaterThan(5000);
  expect(port.blocks.some((b) => b.samples.some((v) => v !== 0))).toBe(true);
  port.tell(10 * SLICE, 3);
  settle();
  expect(port.end).toBe(ahead + 10 * SLICE);
  wait(300);
  port.tell(10 * SLICE, 3);
  settle();
  expect(state().missed).toBe(3);
});

/** A player of a sheet, once all is made, and what lies ready, sample by sample. */
function playing({
  sound = 'sine',
  callMilliseconds,
}: { sound?: Program['sound']; callMilliseconds?: number } = {}) {
  const all = begun(callMilliseconds);
  const { player, port, settle } = all;
  player.hear({ is: 'program', program: { ...program, sound } });
  player.hear({ is: 'load', side: 'a', sheet: sourceOf(10_000), way: 0 });
  settle();
  // What was made while it was loaded is played.
  for (const played of [3840, 7680]) {
    port.tell(played);
    settle();
  }
  port.blocks.splice(0);
  return all;
}

function sourceOf(ohms: number) {
  const sheet = newSheet();
  return { ...sheet, source: { ...sheet.source, ohms } };
}

test.each<[string, ToPlayer]>([
  ['a value', { is: 'load', side: 'a', sheet: sourceOf(20_000), way: 0 }],
  ['a key', { is: 'press', semitones: 7 }],
  ['what is played', { is: 'program', program: { ...program, hz: 3000 } }],
])(
  '%s is heard within 30 ms: what was made beyond that is made anew, and only that',
  (_, change) => {
    const { player, port, settle, state } = playing();
    const [played, end] = [7680, 7680 + 6144];
    player.hear(change);
    settle();
    const again = port.blocks.filter(({ at }) => at < end);
    const first = again.findIndex(({ joins }) => joins);
    expect(again[first].at - played).toBeGreaterThan(512);
    expect(again[first].at - played).toBeLessThan(0.03 * 48_000);
    // One after the other to where it was, none left out.
    const places = port.blocks.slice(port.blocks.indexOf(again[first])).map(({ at }) => at);
    expect(places[places.length - 1]).toBeGreaterThanOrEqual(end - 128);
    places.slice(1).forEach((at, k) => expect(at - places[k]).toBe(128));
    expect(port.blocks.filter(({ joins }) => joins)).toHaveLength(1);
    expect(state().missed).toBe(0);
  },
);

test('where there is no time to make it anew, what was made before is played on, and there is more time next', () => {
  // So slow that a turn makes only what is soon wanted.
  const { player, port, settle, turns, wait } = playing({ callMilliseconds: 1 });
  const end = 7680 + 6144;
  const change = (semitones: number) => {
    player.hear({ is: 'press', semitones });
    turns.shift()!();
    return port.blocks.find(({ joins }) => joins)!.at;
  };
  const soon = change(7);
  // The audio thread has come past it before the next turn.
  port.blocks.splice(0);
  wait(20);
  port.tell(soon + 1500);
  settle();
  expect(port.blocks[0]).toMatchObject({ at: end - 64, joins: true });
  for (const played of [end, end + 3840]) {
    port.tell(played);
    settle();
  }
  port.blocks.splice(0);
  expect(change(9) - (end + 3840)).toBeGreaterThanOrEqual(2 * 768);
});

test('what comes in is not made again, and no further ahead than it must be', () => {
  const { player, port, settle } = playing({ sound: 'input' });
  player.hear({ is: 'press', semitones: 7 });
  settle();
  expect(port.blocks.filter(({ joins }) => joins)).toEqual([]);
});

test('of a stream of edits the last is heard, and one that cannot be solved is named', () => {
  const { player, settle, state, turns } = begun();
  const sheet = newSheet();
  for (const ohms of [1, 2, 3])
    player.hear({
      is: 'load',
      side: 'a',
      sheet: { ...sheet, source: { ...sheet.source, ohms } },
      way: 0,
    });
  expect(turns).toHaveLength(1);
  settle();
  const broken = structuredClone(sheet);
  broken.ways[0].stages[0] = {
    ...broken.ways[0].stages[0],
    topology: undefined,
    drawing: { symbols: [], wires: [] },
  };
  player.hear({ is: 'load', side: 'a', sheet: broken, way: 0 });
  settle();
  expect(state().problems.a).toMatch(/\w/);
  expect(state().sides.a).toBeDefined();
  player.hear({ is: 'load', side: 'a', sheet, way: 0 });
  settle();
  expect(state().problems).toEqual({});
});

test('what is told in one turn counts in its order: the side that was chosen and taken away is not heard', () => {
  const { player, port, settle } = playing();
  player.hear({ is: 'load', side: 'b', sheet: sourceOf(20_000), way: 0 });
  settle();
  player.hear({ is: 'choose', side: 'b' });
  player.hear({ is: 'unload', side: 'b' });
  settle();
  const end = 7680 + 6144;
  port.tell(end);
  settle();
  expect(port.end).toBeGreaterThan(end);
});

test('where far too much is lacking it takes coarser steps', () => {
  const { player, port, settle, state, wait } = begun();
  player.hear({ is: 'load', side: 'a', sheet: newSheet(), way: 0 });
  settle();
  const { times } = state().sides.a!;
  expect(times).toBeGreaterThan(1);
  wait(100);
  port.tell(port.end, 100);
  settle();
  expect(state().sides.a!.times).toBe(times / 2);
  // And no coarser for nothing.
  wait(3000);
  port.tell(port.end, 101);
  settle();
  expect(state().sides.a!.times).toBe(times / 2);
});

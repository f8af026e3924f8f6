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
function begun() {
  const said: PlayerState[] = [];
  const turns: (() => void)[] = [];
  let now = 0;
  const player = new ListenPlayer(
    (state) => said.push(state),
    (run) => turns.push(run),
    () => (now += 0.01),
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
  expect(state().missed).toBe(3);
});

/** A player of a sheet, once all is made, and what lies ready, sample by sample. */
function playing(sound: Program['sound'] = 'sine') {
  const all = begun();
  const { player, port, settle } = all;
  player.hear({ is: 'program', program: { ...program, sound } });
  player.hear({ is: 'load', side: 'a', sheet: sourceOf(10_000), way: 0 });
  settle();
  port.blocks.length = 0;
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
    port.tell(3840);
    settle();
    const end = port.end;
    player.hear(change);
    settle();
    const again = port.blocks.filter(({ at }) => at < end);
    const first = again.findIndex(({ joins }) => joins);
    expect(again[first].at - 3840).toBeGreaterThan(512);
    expect(again[first].at - 3840).toBeLessThan(0.03 * 48_000);
    // One after the other to where it was, none left out.
    const places = port.blocks.slice(port.blocks.indexOf(again[first])).map(({ at }) => at);
    expect(places[places.length - 1]).toBeGreaterThanOrEqual(end - 128);
    places.slice(1).forEach((at, k) => expect(at - places[k]).toBe(128));
    expect(port.blocks.filter(({ joins }) => joins)).toHaveLength(1);
    expect(state().missed).toBe(0);
  },
);

test('a stream of changes costs no more than there is time for: what was made before is played on', () => {
  const { player, port } = playing();
  for (let k = 0; k < 20; k++) player.hear({ is: 'press', semitones: k });
  // Each was answered with what is heard next alone: no turn was given for the rest.
  expect(port.blocks.length).toBeLessThan(20 * 6);
  // Played in the meantime, past all that was made anew.
  port.blocks.length = 0;
  port.tell(5000);
  expect(port.blocks[0].at).toBe(5000);
  expect(port.blocks[0].joins).toBe(true);
});

test('what comes in is not made again, and no further ahead than it must be', () => {
  const { player, port, settle } = playing('input');
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

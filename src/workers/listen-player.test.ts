import { SLICE } from '@/core/listen/heard';
import { USUAL_PROGRAM } from '@/core/listen/program';
import { newSheet } from '@/testing/open-sheet';
import type { FromFeeder, PlayerState } from './listen-messages';
import { ListenPlayer } from './listen-player';

/** An audio thread by hand: what was sent to it, and how far it says it is. */
function feeder() {
  const port = {
    onmessage: null as null | ((event: { data: FromFeeder }) => void),
    sent: 0,
    blocks: [] as Float32Array[],
    postMessage(block: Float32Array) {
      port.sent += block.length;
      port.blocks.push(block);
    },
    tell: (played: number, missed = 0, ready?: number) =>
      port.onmessage!({ data: { played, missed, ready } }),
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
  const { player, port, settle, state } = begun();
  port.tell(0);
  expect(port.sent).toBe(0);
  player.hear({ is: 'program', program });
  player.hear({ is: 'load', side: 'a', sheet: newSheet(), way: 0 });
  expect(port.sent).toBe(0);
  settle();
  expect(state().sides.a!.times).toBeGreaterThanOrEqual(1);
  expect(state().loading).toBe(false);
  const ahead = port.sent;
  expect(ahead).toBeGreaterThan(1000);
  expect(port.blocks.some((b) => b.some((v) => v !== 0))).toBe(true);
  port.tell(10 * SLICE);
  expect(port.sent).toBe(ahead + 10 * SLICE);
});

test('more lies ahead after something was lacking, and less again when it is calm', () => {
  const { player, port, settle, state, wait } = begun();
  player.hear({ is: 'load', side: 'a', sheet: newSheet(), way: 0 });
  settle();
  const calm = () => {
    wait(5000);
    port.tell(port.sent);
  };
  for (let k = 0; k < 4; k++) calm();
  const before = port.sent;
  port.tell(before);
  const little = port.sent - before;
  port.tell(port.sent, 3);
  const missed = port.sent - before - little;
  expect(missed).toBeGreaterThan(2 * little);
  wait(300);
  port.tell(port.sent, 3);
  expect(state().missed).toBe(3);
});

test('more lies ahead before anything is lacking, and stays where less was nearly too little', () => {
  const { player, port, settle, wait } = begun();
  player.hear({ is: 'load', side: 'a', sheet: newSheet(), way: 0 });
  settle();
  /** What lies ahead after a calm stretch in which no less than this lay ready. */
  const calm = (ready: number) => {
    wait(2000);
    const played = port.sent;
    port.tell(played, 0, ready);
    return port.sent - played;
  };
  const wide = calm(1500);
  expect(calm(1500)).toBe(wide);
  expect(calm(4000)).toBeLessThan(0.6 * wide);
  const little = calm(2000);
  expect(little).toBeLessThan(0.3 * wide);
  // It came near to having nothing: twice as much from then on, and no less. It goes on saying so
  // until what is made then has come.
  wait(200);
  port.tell(port.sent, 0, 100);
  port.tell(port.sent, 0, 130);
  for (let k = 0; k < 2; k++) {
    const ahead = calm(2500);
    expect(ahead).toBeGreaterThan(1.5 * little);
    expect(ahead).toBeLessThan(2.5 * little);
  }
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
  port.tell(port.sent, 100);
  settle();
  expect(state().sides.a!.times).toBe(times / 2);
  // And no coarser for nothing.
  wait(3000);
  port.tell(port.sent, 101);
  settle();
  expect(state().sides.a!.times).toBe(times / 2);
});

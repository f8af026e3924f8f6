import type { ToFeeder } from '@/workers/listen-messages';

interface Made {
  port: { onmessage: (event: { data: unknown }) => void };
  process: (inputs: Float32Array[][], outputs: Float32Array[][]) => boolean;
}

let Feeder: new () => Made;

beforeAll(async () => {
  // What an audio thread gives to its modules.
  Object.assign(globalThis, {
    AudioWorkletProcessor: class {
      port = {};
    },
    registerProcessor: (_: string, made: typeof Feeder) => (Feeder = made),
  });
  await import('./feeder.mjs');
});

function begun() {
  const feeder = new Feeder();
  const said: { played: number; missed: number }[] = [];
  const player = {
    onmessage: null as null | ((event: { data: ToFeeder }) => void),
    postMessage: (message: (typeof said)[number]) => said.push(message),
  };
  feeder.port.onmessage({ data: { is: 'port', port: player } });
  return {
    said,
    give: (at: number, value: number, { joins = false, count = 128 } = {}) =>
      player.onmessage!({ data: { at, joins, samples: new Float32Array(count).fill(value) } }),
    hear: () => {
      const out = new Float32Array(128);
      feeder.process([[]], [[out]]);
      return [...out];
    },
  };
}

test('it is silent until enough lies ready, plays it in order, and says what it lacked', () => {
  const { said, give, hear } = begun();
  give(0, 0.5, { count: 1024 });
  expect(new Set(hear())).toEqual(new Set([0]));
  give(1024, 0.25, { count: 1088 });
  for (let k = 0; k < 8; k++) expect(new Set(hear())).toEqual(new Set([0.5]));
  for (let k = 0; k < 8; k++) expect(new Set(hear())).toEqual(new Set([0.25]));
  const last = hear();
  expect(last.slice(0, 64)).toEqual(Array(64).fill(0.25));
  expect(last.slice(64)).toEqual(Array(64).fill(0));
  expect(said[said.length - 1]).toEqual({ played: 2112, missed: 1, incoming: undefined });
});

test('what is made anew takes the place of what lay there without a step, and none of it is lost', () => {
  const { give, hear } = begun();
  give(0, 1, { count: 4096 });
  hear();
  give(1024, -1, { joins: true });
  for (let at = 1152; at < 2048; at += 128) give(at, -1);
  const heard = Array.from({ length: 31 }, hear).flat();
  expect(heard.slice(0, 896).every((v) => v === 1)).toBe(true);
  expect(heard.slice(960, 1920).every((v) => v === -1)).toBe(true);
  // It came no further: what was made before is played on.
  expect(heard.slice(1920).every((v) => v === 1)).toBe(true);
  const steps = heard.slice(1, 1900).map((v, k) => Math.abs(v - heard[k]));
  expect(Math.max(...steps)).toBeLessThan(0.04);
});

test('what comes too late is left out, and the rest still comes in gradually', () => {
  const { give, hear } = begun();
  give(0, 1, { count: 4096 });
  for (let k = 0; k < 4; k++) hear();
  give(384, -1, { joins: true });
  give(480, -1);
  const heard = hear();
  expect(heard[0]).toBeCloseTo(1, 1);
  expect(heard[70]).toBe(-1);
});

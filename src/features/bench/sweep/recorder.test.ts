type Said = { is: string; peak?: number; samples?: Float32Array };

interface Made {
  port: { onmessage: (event: { data: unknown }) => void; postMessage: (said: Said) => void };
  process: (inputs: Float32Array[][], outputs: Float32Array[][]) => boolean;
}

let Recorder: new () => Made;

beforeAll(async () => {
  // What an audio thread gives to its modules.
  Object.assign(globalThis, {
    AudioWorkletProcessor: class {
      port = {};
    },
    registerProcessor: (_: string, made: typeof Recorder) => (Recorder = made),
  });
  await import('./recorder.mjs');
});

function begun() {
  const recorder = new Recorder();
  const said: Said[] = [];
  recorder.port.postMessage = (message) => said.push(message);
  return {
    said,
    tell: (data: unknown) => recorder.port.onmessage({ data }),
    /** A block: what comes in, and what goes out. */
    block: (input: number) => {
      const out = [new Float32Array(128), new Float32Array(128)];
      const on = recorder.process([[new Float32Array(128).fill(input)]], [out]);
      expect(out[1]).toEqual(out[0]);
      return { out: [...out[0]], on };
    },
  };
}

test('what is played and what is recorded are counted by the same clock', () => {
  const { said, tell, block } = begun();
  expect(new Set(block(0.5).out)).toEqual(new Set([0]));
  tell({ is: 'play', samples: Float32Array.from({ length: 200 }, (_, n) => n / 256), tail: 100 });
  expect(block(0.25).out[100]).toBe(100 / 256);
  const second = block(-0.75).out;
  expect(second[71]).toBe(199 / 256);
  expect(second[72]).toBe(0);
  block(0.125);
  const [{ samples }] = said.filter((s) => s.is === 'recorded');
  expect(samples).toHaveLength(300);
  expect([samples![0], samples![127], samples![128], samples![299]]).toEqual([
    0.25, 0.25, -0.75, 0.125,
  ]);
  expect(new Set(block(0).out)).toEqual(new Set([0]));
});

test('what is stopped falls silent within a hundredth of a second, and no recording comes of it', () => {
  const { said, tell, block } = begun();
  tell({ is: 'play', samples: new Float32Array(48_000).fill(1), tail: 0 });
  block(0);
  tell({ is: 'stop' });
  const heard = Array.from({ length: 5 }, () => block(0).out).flat();
  expect(heard[0]).toBe(1);
  for (let n = 1; n < heard.length; n++) expect(heard[n - 1] - heard[n]).toBeLessThan(0.01);
  expect(heard[heard.length - 1]).toBe(0);
  expect(said.some((s) => s.is === 'recorded')).toBe(false);
});

test('it says the highest of what comes in, and ends when it is told to', () => {
  const { said, tell, block } = begun();
  block(-0.5);
  for (let k = 0; k < 15; k++) block(0.1);
  expect(said).toEqual([{ is: 'peak', peak: 0.5 }]);
  tell({ is: 'end' });
  expect(block(0).on).toBe(false);
});

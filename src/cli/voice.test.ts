import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readWav, wavOf } from '@/core/formats/wav';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'reed-voice-'));
const inFolder = (name: string) => join(folder, name);

function run(...argv: string[]) {
  let [out, error] = ['', ''];
  const code = main(argv, { out: (t) => (out += t), error: (t) => (error += t) });
  return { code, error, result: out === '' ? null : (JSON.parse(out) as unknown) };
}

const LOOP = inFolder('loop.json');
writeFileSync(
  LOOP,
  JSON.stringify(
    (
      JSON.parse(
        readFileSync(join(__dirname, '../core/fixtures/transient-ota-loop.json'), 'utf8'),
      ) as { circuit: unknown }
    ).circuit,
  ),
);
const BIAS = 'U1.biasAmps,U2.biasAmps, U3.biasAmps,U4.biasAmps';

test('reed tune prints a row for each value, by ratio or even', () => {
  const ends = ['--probe', 'out', '--vary', BIAS, '--from', '1u', '--to', '100u', '--points', '3'];
  const { code, result } = run('tune', LOOP, ...ends);
  expect(code).toBe(0);
  const { rows } = result as { rows: { value: number; halfPowerHz: number; stable: boolean }[] };
  expect(rows.map((r) => r.value)).toEqual([1e-6, expect.closeTo(1e-5, 12), 1e-4]);
  expect(rows[2].halfPowerHz / rows[0].halfPowerHz).toBeCloseTo(100, 4);
  const even = run('tune', LOOP, ...ends, '--linear').result as { rows: { value: number }[] };
  expect(even.rows[1].value).toBeCloseTo(50.5e-6, 12);
  expect(run('tune', LOOP, ...ends.slice(0, -2), '--points', '0').error).toMatch(/--points/);
  expect(run('tune', LOOP, ...ends.slice(0, 5), '-1', ...ends.slice(6)).error).toMatch(
    /above zero, or give --linear/,
  );
});

test('reed threshold prints where it begins to sing, or why it does not', () => {
  const ask = (to: string) =>
    run('threshold', LOOP, '--vary', 'E1.gain', '--from', '-1', '--to', to).result;
  expect(ask('-10')).toEqual({
    value: expect.closeTo(-4, 9) as number,
    hz: expect.closeTo(6153.311415, 5) as number,
    why: null,
  });
  expect(ask('-2')).toEqual({
    value: null,
    hz: null,
    why: expect.stringMatching(/No pair/) as string,
  });
});

test('reed render writes volts as they are, of tones and of recordings', () => {
  const out = inFolder('x.wav');
  const common = [
    ...['--probe', 'out', '--source', 'V1', '--seconds', '0.02', '--rate', '44100'],
    ...['--oversample', '4', '--out', out],
  ];
  const tone = run('render', LOOP, ...common, '--wave', 'saw', '--hz', '110', '--volts', '0.1');
  expect(tone.code).toBe(0);
  const said = tone.result as { samples: number; realTimeFactor: number; peakVolts: number };
  expect(said.samples).toBe(882);
  expect(said.realTimeFactor).toBeGreaterThan(0);
  const { samples, rate, depth } = readWav(new Uint8Array(readFileSync(out)), 'x.wav');
  expect([samples.length, rate, depth]).toEqual([882, 44_100, '32f']);
  const peak = samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
  expect(peak).toBeCloseTo(said.peakVolts, 6);

  const recording = inFolder('in.wav');
  writeFileSync(recording, wavOf(new Float32Array(2000).fill(0.5), 22_050));
  const played = run('render', LOOP, ...common, '--wave', recording, '--volts', '0.02');
  expect(played.code).toBe(0);
  // At rest the loop passes 1 / 3.5.
  expect(readWav(new Uint8Array(readFileSync(out)), 'x.wav').samples[881]).toBeCloseTo(
    0.01 / 3.5,
    4,
  );
  const text = inFolder('text.wav');
  writeFileSync(text, 'hello');
  for (const [wave, why] of [
    [text, /“text\.wav” cannot be played: it is no WAV file/],
    ['organ', /none of sine, saw, square, triangle, noise, and there is no such file/],
  ] as const)
    expect(run('render', LOOP, ...common, '--wave', wave, '--volts', '1').error).toMatch(why);
  expect(run('render', LOOP, ...common, '--wave', 'sine', '--volts', '1').error).toMatch(
    /--hz is missing/,
  );
});

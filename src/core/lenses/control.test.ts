import { cellOf } from '@/core/cells';
import { transient } from '@/core/analysis/transient/transient';
import { ohmsOver, photocellModel } from '@/core/circuit/devices/photocell';
import { makeCircuit } from '@/core/circuit/schema';
import { ROOM_KELVIN } from '@/core/constants';
import { movedTo } from '@/core/sheet/controls';
import type { Control, Sheet } from '@/core/sheet/schema';
import { voiceSheet } from '@/core/sheet/voice';
import { controlLens } from './control';

const AT = '2026-11-27T12:00:00.000Z';

function voice(id: string, change: Partial<Control> = {}): Sheet {
  const cell = cellOf(id)!;
  const sheet = voiceSheet({
    id: 'x',
    title: 'Voice',
    at: AT,
    cell,
    ...cell.usual,
    source: { name: 'Oscillator', ohms: 0 },
    load: { name: 'Amplifier', ohms: null },
  });
  const [first, ...others] = sheet.controls;
  return { ...sheet, controls: [{ ...first, ...change }, ...others] };
}
const ask = (sheet: Sheet, index = 0) => controlLens(sheet, { control: sheet.controls[index].id });

test('a pole that an ideal converter drives keeps a volt an octave', async () => {
  const { law, cents, rows, measuredBy, trim } = await ask(
    voice('ota-one-pole', { converter: undefined }),
  );
  expect(law).toEqual({ is: 'octaves', perVolt: 1 });
  expect(measuredBy).toBe('half-power');
  expect(rows[12].hz! / Math.sqrt(30 * 12_000)).toBeCloseTo(1, 3);
  // What is left at the top is the op-amp’s speed.
  expect(Math.max(...cents!.slice(0, 12).map(Math.abs))).toBeLessThan(0.5);
  expect(trim!.leavesCents).toBeLessThan(Math.max(...cents!.map(Math.abs)));
});

test('without a resistor that follows its warmth the scale drifts by the ratio of temperatures', async () => {
  const { drift, cents, rows } = await ask(
    voice('ota-one-pole', { converter: { ppmPerKelvin: 0, ohms: 0 } }),
  );
  for (const { kelvin, cents: there } of drift) {
    const times = ROOM_KELVIN / kelvin;
    for (const k of [0, 6, 12, 18]) {
      const octaves = (rows[k].at - 0.5) * Math.log2(12_000 / 30);
      // The converter’s scale, and the transconductance of the pole itself.
      const expected = 1200 * (octaves * (times - 1) + Math.log2(times));
      expect(there[k] - cents![k]).toBeCloseTo(expected, 0);
    }
  }
});

test('a reference that grows with warmth takes the drift of the transconductors away', async () => {
  const { drift, cents } = await ask(
    voice('ota-one-pole', {
      converter: { ppmPerKelvin: 1e6 / ROOM_KELVIN, ohms: 0, warmReference: true },
    }),
  );
  for (const { cents: there } of drift)
    there.forEach((c, k) => expect(Math.abs(c - cents![k])).toBeLessThan(0.5));
});

test('its emitter’s resistance flattens the top, and two trimmers take most of it', async () => {
  const { cents, trim } = await ask(
    voice('ota-one-pole', { converter: { ppmPerKelvin: 3300, ohms: 20 } }),
  );
  expect(cents![24]).toBeLessThan(-300);
  expect(trim!.leavesCents).toBeLessThan(-cents![24] / 2);
  expect(trim!.zeroAt.length).toBeGreaterThanOrEqual(2);
});

test('a linear current is held against proportion', async () => {
  const sheet = voice('ota-one-pole');
  const [control] = sheet.controls;
  const [{ from, to }] = control.moves;
  const { law, cents } = await ask(
    voice('ota-one-pole', {
      is: 'amps',
      converter: undefined,
      span: { from, to },
      moves: control.moves.map((m) => ({ ...m, law: 'even' as const })),
    }),
  );
  expect(law!.is).toBe('proportion');
  expect(Math.max(...cents!.slice(0, 12).map(Math.abs))).toBeLessThan(5);
});

test('a device with a law of its own, and a knob, are held against nothing', async () => {
  expect((await ask(voice('photocell-gate'))).law).toBeNull();
  const { cents, rows } = await ask(voice('ota-cascade'), 1);
  expect(cents).toBeNull();
  expect(rows[0].figures.stable).toBe(true);
  expect(rows[24].figures.stable).toBe(false);
});

test('what a table moves is told as it is moved', async () => {
  const table = [{ at: 0.5, value: 2e-6 }];
  const { rows } = await ask(
    voice('ota-one-pole', {
      converter: undefined,
      moves: voice('ota-one-pole').controls[0].moves.map((m) => ({
        ...m,
        law: 'by table' as const,
        table,
      })),
    }),
  );
  expect(rows[12].moved).toBeCloseTo(2e-6, 12);
});

test('a table goes straight from place to place', () => {
  const move = {
    stage: 's1',
    part: 'G1',
    quantity: 'biasAmps',
    from: 1e-6,
    to: 9e-6,
    law: 'by table' as const,
    table: [{ at: 0.5, value: 2e-6 }],
  };
  expect([0, 0.25, 0.5, 0.75, 1].map((at) => movedTo(move, at) * 1e6)).toEqual(
    [1, 1.5, 2, 5.5, 9].map((v) => expect.closeTo(v, 9) as number),
  );
});

test('a pluck opens the gate of light quickly and lets it close slowly', async () => {
  const { pluck, rows } = await ask(voice('photocell-gate'));
  expect(pluck!.hz[0]).toBeCloseTo(rows[0].hz!, 6);
  expect(pluck!.upSeconds).toBeGreaterThan(0);
  expect(pluck!.downSeconds).toBeGreaterThan(3 * pluck!.upSeconds!);
  expect((await ask(voice('ota-cascade'))).pluck).toBeNull();
});

test('a cell’s course by its law is the engine’s', () => {
  const model = photocellModel.parse({
    curve: [
      { amps: 1e-4, ohms: 1e6 },
      { amps: 1e-2, ohms: 1e3 },
    ],
  });
  const lit = (t: number) => (t > 0.02 && t <= 0.04 ? 1e-2 : 1e-4);
  const ohms = ohmsOver(model, lit, { seconds: 0.06, count: 31 });
  const { probes } = transient(
    makeCircuit([
      {
        id: 'I1',
        kind: 'current-source',
        from: '0',
        to: 'l',
        waveform: {
          shape: 'square',
          lowVolts: 1e-4,
          highVolts: 1e-2,
          frequencyHz: 25,
          duty: 0.5,
          delaySeconds: 0.02,
          riseSeconds: 0,
        },
      },
      {
        id: 'H1',
        kind: 'photocell',
        a: 'in',
        b: 'out',
        lampPlus: 'l',
        lampMinus: '0',
        ...model,
      },
      { id: 'V1', kind: 'voltage-source', plus: 'in', minus: '0', dcVolts: 1 },
      { id: 'R1', kind: 'resistor', a: 'out', b: '0', ohms: 1e4 },
    ]),
    { untilSeconds: 0.06, stepSeconds: 0.002, probes: ['out'] },
  );
  // v = R1 / (R1 + cell).
  probes.out.forEach((v, k) => {
    const solved = 1e4 * (1 / v - 1);
    // At a jump one step of the method is begun with the light from before.
    expect(Math.abs(Math.log(ohms[k] / solved))).toBeLessThan(0.05);
  });
});

import { cellOf } from '@/core/cells';
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

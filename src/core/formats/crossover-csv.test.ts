import Papa from 'papaparse';
import { TIERS, tiersPicture, withTier } from '@/core/crossover/board/tiers';
import { channelParts } from '@/core/crossover/parts-list';
import { crossoverPicture } from '@/core/crossover/picture';
import { activeShelfSpeaker, shelfSpeaker } from '@/core/demo/crossovers';
import { demoDrivers } from '@/core/demo/drivers';
import { withDrivers } from '@/core/sheet/references';
import { windCoil } from '@/core/speaker/coils/wind';
import { crossoverCsv } from './crossover-csv';

const AT = '2026-11-27T08:00:00.000Z';
const PASSIVE = withDrivers(shelfSpeaker(AT), demoDrivers());
const ACTIVE = withDrivers(activeShelfSpeaker(AT), demoDrivers());

test.each([
  ['passive', PASSIVE, ['load_ohms', 'load_degrees']],
  ['active', ACTIVE, ['load_ohms_1', 'load_degrees_1', 'load_ohms_2', 'load_degrees_2']],
] as const)('the curves of the %s speaker are read back as they are shown', (_, sheet, loads) => {
  const picture = crossoverPicture(sheet);
  const { data, meta, errors } = Papa.parse<Record<string, string>>(crossoverCsv(picture, sheet), {
    header: true,
    skipEmptyLines: true,
  });
  expect(errors).toEqual([]);
  expect(meta.fields).toEqual([
    ...['layer', 'frequency_hz', 'sum_db', 'sum_degrees'],
    ...['low_db', 'low_degrees', 'high_db', 'high_degrees'],
    ...loads,
  ]);
  expect(data).toHaveLength(picture.layers.length * picture.frequenciesHz.length);
  const [built] = picture.layers;
  picture.frequenciesHz.forEach((hz, k) => {
    expect(Number(data[k].frequency_hz) / hz).toBeCloseTo(1, 8);
    expect(Number(data[k].high_db)).toBeCloseTo(built.ways[1].levelDb[k], 4);
    expect(Number(data[k][loads[0]])).toBeCloseTo(built.loads[0].ohms[k], 4);
  });
});

test('a channel’s parts go by their names in the drawing, coils by how they are wound and cost', () => {
  const { lines, problems } = channelParts(PASSIVE);
  expect(problems).toEqual([]);
  const names = lines.flatMap((l) => l.names).sort();
  expect(names).toEqual(['C1', 'C2', 'C3', 'L1', 'L2', 'L3', 'R1', 'R2', 'R3']);
  const coil = lines.find((l) => l.names.includes('L1'))!;
  expect(coil.build).toBe('1.25 mm wire, air core');
  expect(coil.price).toBeCloseTo(windCoil(coil.value!, 1.25e-3).price, 9);
  // What the pad has to stand is what the readings tell.
  const { heat } = crossoverPicture(PASSIVE).layers[0].figures;
  expect(Math.max(...lines.map((l) => l.watts ?? 0))).toBeCloseTo(heat!.value, 6);
  const film = lines.find((l) => l.kind === 'capacitor')!;
  expect(film.peakVolts).toBeGreaterThan(20);
  // Large parts cost what the fair tier says, not what small ones do: whole lines come to its sum.
  const fair = tiersPicture(withTier(PASSIVE, TIERS[1])).tiers.find((t) => t.id === 'fair')!;
  const whole = channelParts(withTier(PASSIVE, TIERS[1])).lines;
  expect(whole.reduce((sum, l) => sum + l.each * l.price!, 0)).toBeCloseTo(fair.cost, 9);
});

test('parts of an active channel stand next to nothing, and op-amps are counted', () => {
  const { lines, problems } = channelParts(ACTIVE);
  expect(problems).toEqual([]);
  expect(lines.find((l) => l.kind === 'op-amp')!.each).toBe(10);
  expect(Math.max(...lines.map((l) => l.watts ?? 0))).toBeLessThan(0.05);
  expect(lines.find((l) => l.kind === 'resistor')).not.toHaveProperty('price');
});

test('without its drivers the parts are listed, and why nothing is said of what they stand', () => {
  const { lines, problems } = channelParts(shelfSpeaker(AT));
  expect(lines.length).toBeGreaterThan(5);
  expect(problems).toEqual([expect.stringMatching(/not among the drivers/)]);
});

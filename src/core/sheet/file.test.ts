import { DRIVER, STOCK, TAKE } from '@/core/library/testing';
import { designOf } from './design-of';
import { SheetEvaluator } from './evaluate';
import { fileOf, readSheetFile, readSheetFiles } from './file';
import { makeSheet } from './make';
import { referencesOf, withDrivers, withReferences } from './references';
import type { Sheet, Way } from './schema';

const AT = '2026-11-23T08:00:00.000Z';
const ASK = {
  kind: 'low-pass',
  shape: 'butterworth',
  order: 2,
  edgeHz: 1000,
  edge: 'half-power',
} as const;

/** A sheet with a board that has a take, a part of the drawer, and a way to a loudspeaker in a keep. */
function referring(): Sheet {
  const plain = makeSheet({ id: 'a', title: 'With all', ask: ASK, at: AT });
  const [way] = plain.ways;
  const [stage] = way.stages;
  const [part, data] = Object.entries(stage.parts)[0];
  const to: Way['to'] = { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false };
  const spoken = { ...designOf(plain), ways: [{ ...way, to }] };
  return {
    ...plain,
    ways: [
      {
        ...way,
        stages: [{ ...stage, parts: { ...stage.parts, [part]: { ...data, stock: STOCK.id } } }],
      },
    ],
    boards: [{ id: 'b1', name: 'Board 1', values: {}, takes: [TAKE.id], note: '' }],
    keeps: [{ id: 'k1', name: 'Into the woofer', at: AT, shown: true, design: spoken }],
  };
}
const LIBRARY = { takes: [TAKE], drivers: [DRIVER], drawer: [STOCK] };

test('a file brings along what the sheet and its keeps refer to, and nothing else', () => {
  const sheet = referring();
  const other = { ...TAKE, id: 'other' };
  const file = fileOf(sheet, { ...LIBRARY, takes: [other, TAKE] });
  expect(file.along).toEqual(LIBRARY);
  expect(readSheetFile(JSON.parse(JSON.stringify(file)))).toEqual({ sheet, along: LIBRARY });
  const plain = makeSheet({ id: 'b', title: 'Plain', ask: ASK, at: AT });
  expect(fileOf(plain, LIBRARY)).toBe(plain);
});

test('a bad entry refuses its sheet, in a list only that one', () => {
  const file = { ...referring(), along: { takes: [{ ...TAKE, levelDb: [] }] } };
  expect(() => readSheetFile(file)).toThrow(/“along.takes\[0\]”: The take cannot be read/);
  const plain = makeSheet({ id: 'b', title: 'Plain', ask: ASK, at: AT });
  const [bad, good] = readSheetFiles(JSON.stringify([file, plain]));
  expect(bad).toHaveProperty('message', expect.stringMatching(/^Sheet 1 of the list: “along/));
  expect(good).toMatchObject({ sheet: { title: 'Plain' } });
});

test('references can be renamed, in keeps as well', () => {
  const renamed = withReferences(referring(), (table, id) => `${table}/${id}`);
  expect(referencesOf(renamed)).toEqual({
    takes: new Set([`takes/${TAKE.id}`]),
    drivers: new Set([`drivers/${DRIVER.id}`]),
    drawer: new Set([`drawer/${STOCK.id}`]),
  });
});

describe('a way that ends in a loudspeaker', () => {
  const {
    reOhms: ohms,
    leHenries: henries,
    fsHz: resonanceHz,
    qms: mechanicalQ,
    qes: electricalQ,
  } = DRIVER.model as unknown as Record<string, number>;
  const plain = makeSheet({ id: 'a', title: 'Spoken', ask: ASK, at: AT, source: { ohms: 8 } });
  const sheet: Sheet = {
    ...plain,
    ways: [
      {
        ...plain.ways[0],
        stages: [],
        to: { is: 'driver', name: 'Woofer', driver: DRIVER.id, inverted: false },
      },
    ],
    readings: [{ id: 'r', measure: { measure: 'level', atHz: resonanceHz } }],
  };

  test('is loaded by it: at resonance by Re (1 + Qms/Qes) and the voice coil’s inductance', () => {
    const { readings, problems } = new SheetEvaluator().evaluate(withDrivers(sheet, [DRIVER]));
    expect(problems).toEqual([]);
    const real = ohms * (1 + mechanicalQ / electricalQ);
    const imaginary = 2 * Math.PI * resonanceHz * henries;
    const ratio = Math.hypot(real, imaginary) / Math.hypot(real + 8, imaginary);
    expect(readings[0].results.built).toMatchObject({
      measured: { value: expect.closeTo(20 * Math.log10(ratio), 9) as number },
    });
  });

  test('says so where the loudspeaker is not there, and stays readable', () => {
    const { layers, problems } = new SheetEvaluator().evaluate(withDrivers(sheet, []));
    expect(problems.join()).toMatch(/loudspeaker “Woofer” is not among the drivers/);
    expect(layers.map((l) => l.id)).toEqual(['ideal']);
    expect(readSheetFile(JSON.parse(JSON.stringify(sheet))).sheet).toEqual(sheet);
  });

  test('is solved anew when the figures of the loudspeaker change', () => {
    const evaluator = new SheetEvaluator();
    const level = (entry: typeof DRIVER) => {
      const { results } = evaluator.evaluate(withDrivers(sheet, [entry])).readings[0];
      return results.built && 'measured' in results.built && results.built.measured.value;
    };
    const before = level(DRIVER);
    const heavier = { ...DRIVER, model: { ...DRIVER.model, qes: 0.8 } };
    expect(level(heavier)).not.toBe(before);
    expect(level(DRIVER)).toBe(before);
  });

  test('only ways that end in one are made anew', () => {
    expect(withDrivers(plain, [DRIVER])).toBe(plain);
    const filled = withDrivers({ ...sheet, keeps: referring().keeps }, [DRIVER]);
    expect(filled.keeps[0].design.ways[0].to).toMatchObject({ model: DRIVER.model });
    expect(filled.ways[0].to).toMatchObject({ model: DRIVER.model });
  });
});

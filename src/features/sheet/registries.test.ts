import { LENSES as COMPUTED } from '@/core/lenses/lens';
import { JOBS as WORK } from '@/core/jobs';
import {
  MEASURE_CHOICES,
  measureSchema,
  nameOfMeasure,
  quantityOfMeasure,
} from '@/core/response/readings';
import { JOBS } from '../shelf/jobs';
import { EXPORTS } from './exports';
import { IN_ROW, LENSES, lensOf, panelOf } from './lenses';
import { measureOf, startText, measured } from './pin-measure';

const unique = (names: readonly string[]) => expect(new Set(names).size).toBe(names.length);
const said = (words: string) => expect(words.trim().length).toBeGreaterThan(2);

test('every lens has a name, a title, words, a picture and a key of one digit', () => {
  unique(LENSES.map((l) => l.id));
  unique(LENSES.map((l) => l.title));
  expect(IN_ROW).toBeLessThanOrEqual(9);
  for (const lens of LENSES) {
    said(lens.title);
    said(lens.about);
    expect(lens.Picture).toBeDefined();
    expect(lensOf(lens.id)).toBe(lens);
    expect(panelOf(lens)['aria-labelledby']).toContain(lens.id);
  }
  // What is computed only while it is looked at has a lens, or a screen of its own.
  for (const name of Object.keys(COMPUTED))
    expect([
      ...LENSES.map((l) => l.id),
      'bank',
      // Under a control, and behind “Why?”.
      'singing',
      'cell',
      'crossoverTraps',
      'crossoverAngles',
      'crossoverStep',
      'crossoverDelay',
      'crossoverDecay',
      'crossoverStrain',
      'crossoverSchools',
      'crossoverBoard',
      'crossoverTiers',
    ]).toContain(name);
});

test('a lens of another program shows as the first', () =>
  expect(lensOf('of-tomorrow')).toBe(LENSES[0]));

test('every measure can be asked for: its form makes what its schema reads, with a name and a unit', () => {
  unique(MEASURE_CHOICES.map((c) => c.title));
  for (const choice of MEASURE_CHOICES) {
    said(choice.title);
    const fields = choice.fields.map((field) =>
      measured(field, startText(field, 1000, 'upper', 'point'), 'point'),
    );
    const measure = measureOf(choice, Object.assign({}, ...fields) as object);
    expect(measureSchema.parse(measure)).toEqual(measure);
    said(nameOfMeasure(measure, { hz: (hz) => `${hz} Hz`, number: String }));
    said(quantityOfMeasure(measure));
  }
  // No measure without a way to ask for it.
  const asked = new Set<string>(MEASURE_CHOICES.map((c) => c.measure));
  const known = measureSchema.options.map((o) => o.shape.measure.value as string);
  expect([...asked].sort()).toEqual([...known].sort());
});

test('every export, job of the shelf and job of the workers has a name of its own and words', () => {
  unique(EXPORTS.map((e) => e.id));
  for (const { title } of EXPORTS) said(title);
  unique(JOBS.map((j) => j.id));
  for (const { title, line } of JOBS) {
    said(title);
    said(line);
  }
  for (const [name, run] of Object.entries(WORK)) {
    said(name);
    expect(run).toBeInstanceOf(Function);
  }
});

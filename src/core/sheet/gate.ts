import { bankSchema, type Bank } from '@/core/sheet/bank-schema';
import { askFields, type Ask } from '@/core/design/ask';
import { firstIssue } from '@/core/document/issue';
import { ReedError } from '@/core/errors';
import { slotSchema, type Slot } from '@/core/slots';
import { crossoverSchema, type Crossover } from './crossover-schema';
import { sheetFault } from './read';
import { SHEET_LIMITS } from './limits';
import { sheetSchema, stageSchema, type Keep, type Sheet, type Stage } from './schema';

/*
 * The one gate before a sheet is shown or stored: what passes reads back. It is asked at every
 * edit, so that a limit is told where it is met, and again at every write.
 */

/** Keeps never change once taken; one that passed passes again. */
const sound = new WeakSet<Keep>();

/**
 * @throws ReedError `range` in the words of a field: "The edge must be at most 10 MHz."
 */
export function gate(sheet: Sheet): void {
  if (sheet.keeps.length > SHEET_LIMITS.keeps)
    throw refusal('keeps', `holds at most ${SHEET_LIMITS.keeps} keeps: remove one first`);
  const fresh = sheet.keeps.filter((k) => !sound.has(k));
  const result = sheetSchema.safeParse({ ...sheet, keeps: fresh });
  const fault = result.success
    ? sheetFault(sheet, (keep) => sound.has(keep))
    : firstIssue(result.error, sheet);
  if (fault) throw refusal(fault.path, fault.message);
  for (const keep of fresh) sound.add(keep);
}

/**
 * A bank alone, before its channels are designed from figures that mean nothing.
 *
 * @throws ReedError `range` as `gate` does
 */
export function checkBank(bank: Bank): void {
  const result = bankSchema.safeParse(bank);
  if (result.success) return;
  const { path, message } = firstIssue(result.error, bank);
  throw refusal(`bank.${path}`, message);
}

/**
 * A crossover alone, before its sections are designed from figures that mean nothing.
 *
 * @throws ReedError `range` as `gate` does
 */
export function checkCrossover(crossover: Crossover): void {
  const result = crossoverSchema.safeParse(crossover);
  if (result.success) return;
  const { path, message } = firstIssue(result.error, crossover);
  throw refusal(`crossover.${path}`, message);
}

/**
 * What a slot is asked for, before it is designed.
 *
 * @throws ReedError `range` as `gate` does
 */
export function checkSlot(slot: Slot): void {
  const result = slotSchema.safeParse(slot);
  if (result.success) return;
  const { path, message } = firstIssue(result.error, slot);
  throw refusal(path, message);
}

/**
 * Single fields of an ask, each for itself.
 *
 * @throws ReedError `range` as `gate` does
 */
export function checkAskFields(fields: Partial<Ask>): void {
  for (const [name, value] of Object.entries(fields)) {
    if (value === undefined || !(name in askFields)) continue;
    const result = askFields[name as keyof typeof askFields].safeParse(value);
    if (result.success) continue;
    const { path, message } = firstIssue(result.error, value);
    throw refusal(path === '' ? `ask.${name}` : `ask.${name}.${path}`, message);
  }
}

const stageFields = stageSchema.pick({ target: true, farads: true, ohms: true });

/**
 * What a stage is designed for and from, before its equations are used.
 *
 * @throws ReedError `range` as `gate` does
 */
export function checkStageFields(fields: Pick<Stage, 'target' | 'farads' | 'ohms'>): void {
  const result = stageFields.safeParse(fields);
  if (result.success) return;
  const { path, message } = firstIssue(result.error, fields);
  throw refusal(path, message);
}

const refusal = (path: string, message: string) =>
  new ReedError('range', `${fieldName(path)} ${message}.`, { path });

/** What the fields of a sheet are called where they are edited. */
const NAMES: Readonly<Record<string, string>> = {
  ask: 'The ask',
  edgeHz: 'The edge',
  lowerHz: 'The lower edge',
  upperHz: 'The upper edge',
  centreHz: 'The centre',
  widthHz: 'The width',
  q: 'Q',
  gainDb: 'The gain',
  gain: 'The gain',
  rippleDb: 'The ripple',
  stopbandDb: 'The stop band',
  order: 'The order',
  topology: 'The topology',
  f0Hz: 'The corner',
  zeroHz: 'The zero',
  zerosHz: 'A zero',
  poles: 'A pole',
  boost: 'The height',
  depth: 'The depth',
  ohms: 'The resistance',
  farads: 'The capacitance',
  volts: 'The voltage',
  title: 'The name',
  name: 'The name',
  stages: 'A path',
  readings: 'A sheet',
  keeps: 'A sheet',
  ways: 'A sheet',
  channels: 'A bank',
  fromHz: 'The lower frequency',
  toHz: 'The upper frequency',
  atHz: 'The frequency',
  value: 'The wanted value',
  tolerance: 'The tolerance',
  view: 'In the picture',
  overlapDb: 'The overlap',
  splitsHz: 'A split',
  withinDb: 'The limit',
  leastOhms: 'The least load',
  downDb: 'The fall',
  octaves: 'The width',
  leHenries: 'The inductance',
  reOhms: 'The resistance',
  loadOhms: 'The load',
  sourceOhms: 'The resistance',
  hz: 'The frequency',
  db: 'The lift',
};

function fieldName(path: string): string {
  const steps = path.replace(/\[\d+\]/g, '').split('.');
  const last = steps[steps.length - 1];
  if (steps[steps.length - 2] === 'parts') return last;
  const part = steps.indexOf('parts');
  if (part >= 0 && part < steps.length - 2) return steps[part + 1];
  // The channels of a bank have stages as a number, a path as a list.
  if (last === 'stages' && steps.includes('bank')) return 'The number of stages';
  return NAMES[last] ?? (last === '' ? 'The sheet' : `“${last}”`);
}

import { messageOf, ReedError } from '@/core/errors';
import { formatQuantity } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { LONGEST_QUANTITY, parseQuantity, type DecimalMark } from '@/core/quantity/parse';
import { withArticle } from './index';
import type { NamedModel, PartKind } from './part-kind';

/** A number of a device's model as a data sheet tells it. */
export interface DeviceFigure {
  /** Of the model. */
  field: string;
  label: string;
  quantity: QuantityKind;
  /** What stands behind the unit. */
  per?: string;
  /** It is told in so many of the model's own unit. */
  scale?: number;
  /** Told in the line of a list. */
  main?: true;
}

const figure = (
  field: string,
  label: string,
  quantity: QuantityKind,
  more: Pick<DeviceFigure, 'per' | 'scale' | 'main'> = {},
): DeviceFigure => ({ field, label, quantity, ...more });

const OP_AMP: readonly DeviceFigure[] = [
  figure('gainBandwidthHz', 'Gain-bandwidth product', 'hertz', { main: true }),
  figure('dcGainDb', 'Open-loop gain', 'decibels'),
  figure('secondPoleHz', 'Second pole', 'hertz'),
  figure('slewVoltsPerSecond', 'Slew rate', 'volts', { per: '/µs', scale: 1e6, main: true }),
  figure('inputVoltageNoise', 'Voltage noise', 'volts', { per: '/√Hz', main: true }),
  figure('voltageNoiseCornerHz', 'Rises as 1/f below', 'hertz'),
  figure('inputCurrentNoise', 'Current noise', 'amps', { per: '/√Hz' }),
  figure('currentNoiseCornerHz', 'Current noise rises below', 'hertz'),
  figure('inputOhms', 'Input resistance', 'ohms'),
  figure('inputFarads', 'Input capacitance', 'farads'),
  figure('outputOhms', 'Output resistance', 'ohms'),
  figure('outputAmps', 'Output current at most', 'amps'),
  figure('offsetVolts', 'Input offset', 'volts'),
  figure('biasAmps', 'Bias current', 'amps'),
  figure('headroomVolts', 'Output stays inside the rails by', 'volts'),
  figure('inputHeadroomVolts', 'Inputs work inside the rails by', 'volts'),
  figure('leastNoiseGain', 'Stable from a noise gain of', 'ratio'),
];

const DIODE: readonly DeviceFigure[] = [
  figure('saturationAmps', 'Saturation current', 'amps', { main: true }),
  figure('emissionCoefficient', 'Emission coefficient', 'ratio', { main: true }),
  figure('junctionFarads', 'Junction capacitance', 'farads'),
  figure('transitSeconds', 'Transit time', 'seconds'),
];

const TRANSISTOR: readonly DeviceFigure[] = [
  figure('betaForward', 'Current gain', 'ratio', { main: true }),
  figure('betaReverse', 'Current gain reversed', 'ratio'),
  figure('saturationAmps', 'Saturation current', 'amps', { main: true }),
  figure('earlyVolts', 'Early voltage', 'volts'),
  figure('baseEmitterFarads', 'Base-emitter capacitance', 'farads'),
  figure('baseCollectorFarads', 'Base-collector capacitance', 'farads'),
  figure('transitSeconds', 'Transit time', 'seconds'),
];

const JFET: readonly DeviceFigure[] = [
  figure('saturatedDrainAmps', 'Drain current at 0 V', 'amps', { main: true }),
  figure('pinchOffVolts', 'Pinch-off voltage', 'volts', { main: true }),
  figure('lambdaPerVolt', 'Channel-length modulation', 'ratio', { per: '/V' }),
  figure('gateSaturationAmps', 'Gate saturation current', 'amps'),
  figure('gateSourceFarads', 'Gate-source capacitance', 'farads'),
  figure('gateDrainFarads', 'Gate-drain capacitance', 'farads'),
];

/** By kind of part. Kept out of the kinds themselves: only forms and lists need these words. */
const FIGURES: Readonly<Record<string, readonly DeviceFigure[]>> = {
  'op-amp': OP_AMP,
  diode: DIODE,
  'light-emitting-diode': DIODE,
  'npn-transistor': TRANSISTOR,
  'pnp-transistor': TRANSISTOR,
  'n-jfet': JFET,
  'p-jfet': JFET,
  ota: [
    figure('biasSiemens', 'Bias current a volt', 'siemens', { main: true }),
    figure('diodeAmps', 'Current of its linearising diodes', 'amps'),
  ],
};

/** The kinds whose figures can be told one by one. */
export const FIGURED_KINDS = Object.keys(FIGURES);

/** What is told of a kind's model; nothing of kinds that have none. */
export const figuresOf = ({ kind }: Pick<PartKind, 'kind'>): readonly DeviceFigure[] =>
  FIGURES[kind] ?? [];

/** A figure as a model has it, in the unit that it is told in; null where nothing is said. */
export function figureIn(model: unknown, { field, scale = 1 }: DeviceFigure): number | null {
  const value = isFields(model) ? model[field] : undefined;
  return typeof value === 'number' ? value / scale : null;
}

/** The offered device of that name; else the first that is offered of its kind. */
export const deviceCalled = ({ models = [] }: PartKind, name: string): NamedModel | undefined =>
  models.find((m) => m.name === name) ?? models[0];

/** A figure, and what it is to be in the unit that it is told in; null takes it away. */
export interface ToldFigure {
  figure: DeviceFigure;
  told: number | null;
}

/**
 * The model with some of its figures changed.
 *
 * @throws ReedError `range` where the kind can have no such figure, or not without it
 */
export function withToldFigures(
  kind: PartKind,
  model: unknown,
  figures: readonly ToldFigure[],
): unknown {
  const changed: Record<string, unknown> = { ...(isFields(model) ? model : {}) };
  for (const { figure, told } of figures)
    if (told === null) delete changed[figure.field];
    else changed[figure.field] = told * (figure.scale ?? 1);
  const read = kind.model?.safeParse(changed);
  if (read?.success) return changed;
  const issues = read?.error.issues ?? [];
  const named = JSON.stringify(issues);
  const { figure, told } = figures.find((f) => named.includes(`"${f.figure.field}"`)) ?? figures[0];
  const why =
    told === null
      ? `${withArticle(kind)} cannot be without it`
      : (messagesIn(issues)[0] ?? 'it cannot be so');
  throw new ReedError('range', `${figure.label}: ${why}.`);
}

/** The same with one of its figures changed. */
export const withFigure = (
  kind: PartKind,
  model: unknown,
  figure: DeviceFigure,
  told: number | null,
): unknown => withToldFigures(kind, model, [{ figure, told }]);

/** What stands behind the unit of a figure, as people write it. */
const BEHIND: Readonly<Record<string, RegExp>> = {
  '/µs': /\s*\/\s*(?:[µμu]s|microseconds?)$/i,
  '/√Hz': /\s*\/\s*(?:√|rt|sqrt|root)?\s*\(?\s*Hz\s*\)?$/i,
  '/V': /\s*\/\s*V$/i,
};

/**
 * A figure as it is written: “9 V/µs”, “5 nV/√Hz”, or the number alone.
 *
 * @returns in the unit that it is told in
 * @throws ReedError `range`, naming the figure
 */
export function readFigure(
  { label, quantity, per }: DeviceFigure,
  text: string,
  mark: DecimalMark = 'point',
): number {
  try {
    // What is too long to be a number is told as it stands.
    const behind = per !== undefined && text.length <= 2 * LONGEST_QUANTITY ? BEHIND[per] : '';
    return parseQuantity(text.replace(behind, ''), quantity, mark);
  } catch (error) {
    throw new ReedError('range', `${label}: ${messageOf(error)}`);
  }
}

/** “10 MHz, 9 V/µs, 5 nV/√Hz”. */
export const figureWords = (kind: PartKind, model: unknown, mark: DecimalMark = 'point'): string =>
  figuresOf(kind)
    .flatMap((own) => {
      const told = own.main ? figureIn(model, own) : null;
      if (told === null) return [];
      const printed = printFigure(own, told, mark);
      // A number without a unit does not say what it is of.
      return [own.quantity === 'ratio' ? `${own.label.toLowerCase()} ${printed}` : printed];
    })
    .join(', ');

/** A figure with its unit. */
export const printFigure = (
  { quantity, per = '' }: DeviceFigure,
  told: number,
  mark: DecimalMark = 'point',
): string => `${formatQuantity(told, quantity, { unit: true, digits: 4, mark })}${per}`;

const isFields = (model: unknown): model is Record<string, unknown> =>
  typeof model === 'object' && model !== null;

interface Issue {
  message: string;
  errors?: Issue[][];
}

/** What a check complains of, of a choice between forms what each of them complains of. */
const messagesIn = (issues: readonly unknown[]): string[] =>
  (issues as Issue[]).flatMap(({ message, errors }) =>
    errors ? errors.flatMap(messagesIn).filter((m) => !/^Invalid/.test(m)) : [message],
  );

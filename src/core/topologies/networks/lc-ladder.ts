import type { Ladder } from '../../response/ladder-network';
import { doublyTerminated, singlyTerminated } from '../../response/ladder';
import { add, multiply, type Polynomial } from '../../response/polynomial';
import { centreOfPoles } from '../figures';
import { polesOf } from '../poles-of-parts';
import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  TWO_PI,
  type StageAsk,
  type StageChoice,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because, meanOfPoles } from '../why';

/*
 * LC ladders of any order: between two resistors, or driven from no resistance at all; all-pole, or
 * with a zero in each series arm. High-passes are the low-pass with 1/s for s.
 */

type Kind = 'low-pass' | 'high-pass';
export interface LadderForm {
  kind: Kind;
  order: number;
  /** Whether the source's resistance belongs to it. */
  terminated: 'both' | 'load';
  zeros: boolean;
}

const USUAL_OHMS = 600;

/** Which arm each element stands in, by the form: shunt first between two resistors. */
const isShunt = ({ terminated }: LadderForm, k: number) =>
  (terminated === 'both') === (k % 2 === 0);

/** Name of the main part of arm k (1-based), and of the trap's other part. */
const isCapacitor = (form: LadderForm, k: number) =>
  isShunt(form, k) === (form.kind === 'low-pass');
const mainOf = (form: LadderForm, k: number) => `${isCapacitor(form, k) ? 'C' : 'L'}${k + 1}`;
const trapOf = (form: LadderForm, k: number) => `${form.kind === 'low-pass' ? 'C' : 'L'}${k + 1}`;
const hasTrap = (form: LadderForm, k: number) => form.zeros && !isShunt(form, k);
const arms = ({ order }: LadderForm) => Array.from({ length: order }, (_, k) => k);

/** The normalised low-pass ladder of an ask. */
function prototypeOf(form: LadderForm, ask: StageAsk): Ladder {
  const w = (hz: number) => (form.kind === 'low-pass' ? hz / ask.f0Hz : ask.f0Hz / hz);
  const sections = ask.poles!.map(({ f0Hz, q }) => ({
    w0: w(f0Hz),
    ...(q === undefined ? {} : { q }),
  }));
  return form.terminated === 'both'
    ? doublyTerminated(sections, (ask.zerosHz ?? []).map(w))
    : singlyTerminated(sections);
}

function valuesOf(form: LadderForm, ask: StageAsk, choice?: StageChoice): Values {
  const ladder = prototypeOf(form, ask);
  const w0 = TWO_PI * ask.f0Hz;
  const low = form.kind === 'low-pass';
  const firstCapacitor = arms(form).find((k) => isCapacitor(form, k))!;
  const e = ladder.elements[firstCapacitor];
  const R =
    choice?.ohms ??
    (choice?.farads === undefined ? USUAL_OHMS : (low ? e : 1 / e) / (w0 * choice.farads));
  const values: Record<string, number> = {
    ...(form.terminated === 'both' ? { RS: R } : {}),
    RL: R * ladder.loadOhms,
  };
  for (const k of arms(form)) {
    const scale = (x: number, capacitor: boolean) => (capacitor ? x / (w0 * R) : (x * R) / w0);
    const main = mainOf(form, k);
    values[main] = scale(low ? ladder.elements[k] : 1 / ladder.elements[k], isCapacitor(form, k));
    if (hasTrap(form, k))
      values[trapOf(form, k)] = scale(low ? ladder.traps[k] : 1 / ladder.traps[k], low);
  }
  return values;
}

/** Poles by walking the ladder from the open end to the source, in s for a low-pass, 1/s otherwise. */
function figuresOf(form: LadderForm, values: Values): StageFigures {
  const low = form.kind === 'low-pass';
  const RL = values.RL;
  const seen = (name: string) => (low ? values[name] : 1 / values[name]);
  let voltage: Polynomial = [1];
  let current: Polynomial = [1 / RL];
  let top: Polynomial = [1];
  for (const k of arms(form).reverse()) {
    const main = seen(mainOf(form, k));
    if (isShunt(form, k)) current = add(current, multiply([0, main], voltage));
    else if (hasTrap(form, k)) {
      const pole = [1, 0, main * seen(trapOf(form, k))];
      voltage = add(multiply(pole, voltage), multiply([0, main], current));
      current = multiply(pole, current);
      top = multiply(top, pole);
    } else voltage = add(voltage, multiply([0, main], current));
  }
  const denominator = form.terminated === 'both' ? add(voltage, current, values.RS) : [...voltage];
  const found = polesOf(denominator);
  const mirror = (hz: number) => (low ? hz : 1 / (TWO_PI * TWO_PI * hz));
  const poles = found.map((p) => ({ ...p, f0Hz: mirror(p.f0Hz) }));
  const zerosHz = arms(form)
    .filter((k) => hasTrap(form, k))
    .map((k) => 1 / (TWO_PI * Math.sqrt(values[mainOf(form, k)] * values[trapOf(form, k)])));
  return {
    f0Hz: centreOfPoles(poles),
    gain: top[0] / denominator[0],
    poles,
    ...(form.zeros ? { zerosHz } : {}),
  };
}

function drawingOf(form: LadderForm) {
  const lines: string[] = ['in 0,6'];
  let x = 0;
  const series = (part: string, trap?: string) => {
    lines.push(`${x},6 ${x + 1},6 / ${part} ${x + 1},6 right / ${x + 5},6 ${x + 7},6`);
    if (trap)
      lines.push(
        `${x},6 ${x},2 ${x + 1},2 / ${trap} ${x + 1},2 right / ${x + 5},2 ${x + 6},2 ${x + 6},6`,
      );
    x += 7;
  };
  if (form.terminated === 'both') series('resistor RS');
  for (const k of arms(form)) {
    const [main, other] = isCapacitor(form, k) ? ['capacitor', 'coil'] : ['coil', 'capacitor'];
    const part = `${main} ${mainOf(form, k)}`;
    if (isShunt(form, k)) {
      lines.push(`${x},6 ${x},7 / ${part} ${x},7 down right / ground ${x},11 / ${x},6 ${x + 4},6`);
      x += 4;
    } else series(part, hasTrap(form, k) ? `${other} ${trapOf(form, k)}` : undefined);
  }
  lines.push(
    `${x},6 ${x},7 / resistor RL ${x},7 down right / ground ${x},11 / ${x},6 ${x + 4},6 / out ${x + 4},6`,
  );
  return sketch(lines.join('\n'));
}

const nameOf = ({ kind, order, terminated, zeros }: LadderForm) =>
  `${zeros ? 'LC ladder with traps' : 'LC ladder'}, ${kind}, order ${order}${terminated === 'load' ? ', driven directly' : ''}`;

export function lcLadder(form: LadderForm): Topology {
  const { kind, order, terminated, zeros } = form;
  const figures = (values: Values) => figuresOf(form, values);
  const family = `${terminated === 'load' ? 'driven-' : ''}lc-ladder${zeros ? '-traps' : ''}`;
  return {
    id: `${family}-${kind}-${order}`,
    family,
    series: `${family}-${kind}`,
    name: nameOf(form),
    short: `LC ladder ${order}`,
    asWords: `an LC ladder${zeros ? ' with traps' : ''}${terminated === 'load' ? ', driven directly' : ''}`,
    kind,
    order,
    opAmps: 0,
    gain: 'given',
    limits: { gain: [1e-9, 1], poles: zeros ? 'with-zeros' : 'all-pole' },
    drawing: drawingOf(form),
    design(ask, choice) {
      checkAsk(this, { ...ask, gain: undefined });
      const values = valuesOf(form, ask, choice);
      const { gain } = figures(values);
      checkAsk({ ...this, limits: { ...this.limits, gain: [gain, gain] } }, ask);
      return values;
    },
    figures,
    explain(values) {
      const f = figures(values);
      const R = values.RS ?? values.RL;
      const at = { ...f, own: { R0: R } };
      const w0 = TWO_PI * f.f0Hz;
      /** A part at one ohm and one radian per second. */
      const g = (name: string) => {
        const value = values[name] * w0;
        return (name[0] === 'C' ? value * R : value / R).toPrecision(6);
      };
      const formulas = (name: string) =>
        name[0] === 'C' ? `\\frac{${g(name)}}{2\\pi @f0 @R0}` : `\\frac{${g(name)} @R0}{2\\pi @f0}`;
      return because(values, at, [
        ...arms(form).flatMap((k) => [
          {
            of: mainOf(form, k),
            formula: formulas(mainOf(form, k)),
            text: `The ladder’s element ${k + 1} at one ohm and one radian per second, ${g(mainOf(form, k))}, brought to this impedance and frequency.`,
          },
          ...(hasTrap(form, k)
            ? [
                {
                  of: trapOf(form, k),
                  formula: formulas(trapOf(form, k)),
                  text: `With ${mainOf(form, k)} it makes a zero at ${(1 / (TWO_PI * Math.sqrt(values[mainOf(form, k)] * values[trapOf(form, k)]))).toPrecision(5)} Hz.`,
                },
              ]
            : []),
        ]),
        ...(values.RS === undefined
          ? []
          : [
              {
                of: 'RS',

                text: 'The source’s resistance belongs to the filter; build it into the source or add it.',
              },
            ]),
        {
          of: 'RL',

          text: 'The load belongs to the filter: without it the shape is another.',
        },
        meanOfPoles(f, 'The geometric mean of the poles, at which the element values are scaled.'),
        {
          of: 'gain',

          text:
            terminated === 'both'
              ? 'Source and load resistor divide: with equal ones half the voltage, 6.02 dB down, is all there can be.'
              : 'Nothing is lost in the pass band.',
        },
      ]);
    },
    about:
      terminated === 'both'
        ? 'Coils and capacitors hand the signal on from arm to arm. Where the shape’s crests are, all the power the source can give arrives, so that no part error can raise the level there, only lower it.'
        : 'A ladder driven from a source without resistance into its load: no level is lost, as behind a power amplifier or an op-amp.',
    outputs: 'One, across RL.',
    tuning: zeros
      ? 'Each trap is trimmed alone, to its own zero; then the shunt arms to the shape.'
      : 'All parts move together; there is nothing to trim.',
    sensitivity:
      terminated === 'both'
        ? 'The lowest there is: in the pass band the level answers part errors only in second order.'
        : 'Low, but not as low as between two resistors.',
    avoid:
      'Coils have resistance, pick up hum and cost money; their losses round the corner. Wrong terminations bend the shape.',
  };
}

import { centreOfPoles } from '../figures';
import { chainDenominator, polesOf } from '../poles-of-parts';
import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because, type Why } from '../why';

/*
 * Two to four RC sections in a row, each loading the one before (M. E. Van Valkenburg, "Network
 * Analysis", 1974, ladder networks). Each section's impedance is `taper` times the one before it,
 * so that it loads less: with a great taper the poles come together at 1/(2 pi R C).
 */

type Kind = 'low-pass' | 'high-pass';

const places = (order: number) => Array.from({ length: order }, (_, k) => k);

function figuresOf(kind: Kind, order: number, values: Values): StageFigures {
  const r = places(order).map((k) => values[`R${k + 1}`]);
  const c = places(order).map((k) => values[`C${k + 1}`]);
  // For the high-pass every 1/s is replaced by s; its poles are the mirrored ones, 1/p.
  const denominator =
    kind === 'low-pass'
      ? chainDenominator(
          r.map((ohms) => [ohms]),
          c.map((farads) => [0, farads]),
        )
      : chainDenominator(
          c.map((farads) => [0, 1 / farads]),
          r.map((ohms) => [1 / ohms]),
        ).reverse();
  const poles = polesOf(denominator);
  const taper = (r[order - 1] / r[0]) ** (1 / (order - 1));
  return { f0Hz: centreOfPoles(poles), gain: 1, poles, own: { taper } };
}

function drawingOf(kind: Kind, order: number) {
  const parts = ['resistor R', 'capacitor C'];
  const [series, shunt] = kind === 'low-pass' ? parts : parts.reverse();
  const lines = places(order).map(
    (k) => `${7 * k},2 ${7 * k + 1},2 / ${series}${k + 1} ${7 * k + 1},2 right
      ${7 * k + 5},2 ${7 * k + 7},2 / ${7 * k + 6},2 ${7 * k + 6},3
      ${shunt}${k + 1} ${7 * k + 6},3 down left / ground ${7 * k + 6},7`,
  );
  return sketch(
    `in 0,2 / ${lines.join('\n')} / ${7 * order},2 ${7 * order + 2},2 / out ${7 * order + 2},2`,
  );
}

const COUNT = ['', '', 'Two', 'Three', 'Four'];

/** A chain of loaded RC sections; a family of one drawing and one set of equations. */
export function rcSections(kind: Kind, order: 2 | 3 | 4): Topology {
  const figures = (values: Values) => figuresOf(kind, order, values);
  return {
    id: `rc-sections-${kind}-${order}`,
    family: 'rc-sections',
    series: `rc-sections-${kind}`,
    name: `${COUNT[order]} loaded RC sections, ${kind}`,
    short: `${order} RC sections`,
    asWords: `${COUNT[order].toLowerCase()} loaded RC sections`,
    kind,
    order,
    opAmps: 0,
    gain: 'unity',
    ownShape: true,
    limits: { gain: [1, 1], own: { taper: [1, 30] } },
    drawing: drawingOf(kind, order),
    design(ask, choice) {
      checkAsk(this, ask);
      const taper = ask.own?.taper ?? 1;
      const C1 = startCapacitor(ask.f0Hz, choice);
      const R1 = 1 / (TWO_PI * ask.f0Hz * C1);
      return Object.fromEntries(
        places(order).flatMap((k) => [
          [`R${k + 1}`, R1 * taper ** k],
          [`C${k + 1}`, C1 / taper ** k],
        ]),
      );
    },
    figures,
    explain(values) {
      const f = figures(values);
      const rest = places(order)
        .slice(1)
        .flatMap((k): Why[] => [
          {
            of: `R${k + 1}`,
            formula: `@taper @R${k}`,
            text: 'Each section stands at a higher impedance, so that it loads the one before it less.',
          },
          {
            of: `C${k + 1}`,
            formula: `\\frac{@C${k}}{@taper}`,
            text: 'The capacitor shrinks as the resistor grows: every section keeps the same R times C.',
          },
        ]);
      const apart = f.poles![order - 1].f0Hz / f.poles![0].f0Hz;
      return because(values, f, [
        {
          of: 'R1',
          formula: '\\frac{1}{2\\pi @f0 @C1}',
          text: 'The first section stands at the lowest impedance.',
        },
        { of: 'C1', formula: '\\frac{1}{2\\pi @f0 @R1}', text: 'The capacitor started from.' },
        ...rest,
        {
          of: 'f0',
          formula: `\\frac{1}{2\\pi\\sqrt[${order}]{${places(order)
            .map((k) => `@R${k + 1} @C${k + 1}`)
            .join(' ')}}}`,
          text: 'The geometric mean of the poles, whatever the taper.',
          rule: `Rule of thumb: all poles stand at f0. Exact: loading spreads them, the highest is ${apart.toPrecision(3)} times the lowest.`,
        },
      ]);
    },
    about:
      'Sections in a row do not simply multiply: each draws current from the one before, which pulls the poles apart and rounds the corner. Tapering the impedances brings them together again.',
    outputs: 'One, at the last section, where the impedance is highest.',
    tuning: 'All resistors together move f0; the taper sharpens the corner.',
    sensitivity: 'Low: every pole is real, no part moves the edge by more than itself.',
    avoid: 'The corner is soft: the Q never reaches one half. A load at the end rounds it further.',
  };
}

import { sketch } from '@/core/drawing/sketch';
import {
  checkAsk,
  startCapacitor,
  TWO_PI,
  type StageAsk,
  type StageChoice,
  type StageFigures,
  type Topology,
  type Values,
} from '../topology';
import { because, meanOfPoles, type Why } from '../why';
import { dcOfLadder, figuresOfStates, ladderOf, squareOf, states } from './leapfrog-network';

/*
 * The leapfrog with transconductors: each state is a grounded capacitor driven by the difference of
 * its neighbours, which a transconductor takes directly:
 *
 *   s C(k) u(k) = G(k) (u(k-1) - u(k+1)), with GI for the input and GD damping the two ends.
 */

/** Transconductance that the capacitor's choice makes; 1/10 kilohm by default. */
function valuesOf(order: number, ask: StageAsk, choice?: StageChoice): Values {
  const ladder = ladderOf(ask);
  const C =
    choice?.farads === undefined
      ? startCapacitor(ask.f0Hz, choice)
      : choice.farads / ladder.elements[0];
  const g = TWO_PI * ask.f0Hz * C;
  const values: Record<string, number> = { GI: (g * (ask.gain ?? 1)) / dcOfLadder(ladder), GD1: g };
  for (const k of states(order)) {
    values[`G${k}`] = g;
    values[`C${k}`] = ladder.elements[k - 1] * C;
  }
  values[`GD${order}`] = order % 2 === 1 ? g / ladder.loadOhms : g * ladder.loadOhms;
  return values;
}

function figuresOf(order: number, v: Values): StageFigures {
  const G = squareOf(order);
  const C = squareOf(order);
  for (const k of states(order)) {
    C[k - 1][k - 1] = v[`C${k}`];
    if (v[`GD${k}`] !== undefined) G[k - 1][k - 1] = v[`GD${k}`];
    if (k > 1) G[k - 1][k - 2] = -v[`G${k}`];
    if (k < order) G[k - 1][k] = v[`G${k}`];
  }
  const drive = new Array<number>(order).fill(0);
  drive[0] = v.GI;
  return figuresOfStates({ conductance: G, capacitance: C, drive });
}

function drawingOf(order: number) {
  const lines: string[] = [
    'in 0,6',
    '0,6 2,6',
    'transconductor GI 2,6 plus',
    '2,8 2,9',
    'ground 2,9',
    '6,7 7,7 7,4 16,4 16,7',
  ];
  const width = (k: number) => (k === 1 || k === order ? 24 : 16);
  let x = 10;
  states(order).forEach((k) => {
    const p = (dx: number, y: number) => `${x + dx},${y}`;
    const w = width(k);
    lines.push(
      `transconductor G${k} ${p(0, 6)} plus / ${p(4, 7)} ${p(w - 4, 7)} / ${p(8, 7)} ${p(8, 9)} / capacitor C${k} ${p(8, 9)} down right / ground ${p(8, 13)}`,
    );
    if (k === 1) lines.push(`${p(0, 6)} ${p(-1, 6)} / ground ${p(-1, 6)}`);
    if (w === 24)
      lines.push(
        `transconductor GD${k} ${p(13, 1)} plus / ${p(13, 1)} ${p(12, 1)} / ground ${p(12, 1)} / ${p(13, 3)} ${p(10, 3)} ${p(10, 7)} / ${p(17, 2)} ${p(19, 2)} ${p(19, 7)}`,
      );
    if (k < order) {
      const y = k % 2 === 1 ? 16 : 18;
      const next = x + w;
      // Forward to the next plus input, and back from the next node to this minus input.
      lines.push(`${p(w - 4, 7)} ${p(w - 4, 6)} ${next},6`);
      lines.push(`${p(0, 8)} ${p(-1, 8)} ${p(-1, y)} ${next + 6},${y} ${next + 6},7`);
    } else
      lines.push(
        `${p(0, 8)} ${p(0, 9)} / ground ${p(0, 9)} / ${p(w - 4, 7)} ${p(w, 7)} / out ${p(w, 7)}`,
      );
    x += w;
  });
  return sketch(lines.join('\n'));
}

/** The leapfrog low-pass with transconductors. */
export function leapfrogTransconductor(order: number): Topology {
  const figures = (values: Values) => figuresOf(order, values);
  return {
    id: `leapfrog-transconductor-low-pass-${order}`,
    family: 'leapfrog-transconductor',
    series: 'leapfrog-transconductor-low-pass',
    name: `Leapfrog low-pass with transconductors, order ${order}`,
    short: `leapfrog ${order}, transconductors`,
    asWords: 'a leapfrog of transconductors',
    kind: 'low-pass',
    order,
    opAmps: 0,
    gain: 'settable',
    limits: { gain: [0.05, 20], poles: 'all-pole' },
    drawing: drawingOf(order),
    design(ask, choice) {
      checkAsk(this, ask);
      return valuesOf(order, ask, choice);
    },
    figures,
    explain(values) {
      const f = figures(values);
      const w0 = TWO_PI * f.f0Hz;
      const list = Object.keys(values).map((name): Why => {
        const k = Number(name.replace(/\D/g, ''));
        if (name[0] === 'C')
          return {
            of: name,
            formula: `\\frac{${((values[name] * w0) / values[`G${k}`]).toPrecision(6)} @G${k}}{2\\pi @f0}`,
            text: `The ladder’s element ${k} as a capacitor to ground.`,
          };
        const text =
          name === 'GI'
            ? 'Brings the input in: it sets the gain.'
            : name[1] === 'D'
              ? 'Damps this end, as the ladder’s resistor does.'
              : 'Takes the difference of the two neighbours; all of them together move f0.';
        return { of: name, text };
      });
      return because(values, f, [
        ...list,
        meanOfPoles(f, 'The geometric mean of the poles; it follows the transconductances.'),
      ]);
    },
    about:
      'A transconductor takes a difference by itself, so each element of the ladder needs one of them and a grounded capacitor. One control current tunes them all.',
    outputs: 'The last capacitor; buffer it. Each inner node is a state of the ladder.',
    tuning: 'All transconductances together, by one control, move f0.',
    sensitivity: 'As the ladder’s; the transconductances must track.',
    avoid:
      'Real transconductors take only some tens of millivolts without bending: scale the level, and put buffers between.',
  };
}

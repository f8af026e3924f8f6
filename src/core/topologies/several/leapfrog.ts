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
 * The ladder between two resistors, shunt capacitor first, with op-amps. State k stands for a shunt
 * capacitor's voltage (odd k) or a series coil's current (even k). Odd states are inverting
 * integrators, even ones an inverting integrator and an inverter; the odd states then alternate in
 * sign, so that a trap's capacitor becomes two: from each odd state to the next one's summing point.
 *
 *   odd k:   u(k-1)/RF + u(k+1)/RB + u(k)/RD + s C u(k) + s CF u(k-2) + s CR u(k+2) = 0
 *   even k:  the same for the integrator w, and u = -(RJ/RI) w
 */

const OHMS = 10_000;
const sign = (order: number) => (Math.ceil(order / 2) % 2 === 0 ? 1 : -1);
const odd = (k: number) => k % 2 === 1;

function valuesOf(order: number, ask: StageAsk, choice?: StageChoice): Values {
  const ladder = ladderOf(ask);
  const w0 = TWO_PI * ask.f0Hz;
  // The choice is the first capacitor, or the resistors, or a common value near 10 kilohms for both.
  const C =
    choice?.farads === undefined
      ? startCapacitor(ask.f0Hz, choice)
      : choice.farads / ladder.elements[0];
  const R = 1 / (w0 * C);
  const gain = Math.abs(ask.gain ?? 1);
  const values: Record<string, number> = {};
  const trap = (k: number) => ladder.traps[k - 1] ?? 0;
  for (const k of states(order)) {
    const both = odd(k) ? trap(k - 1) + trap(k + 1) : 0;
    values[`C${k}`] = (ladder.elements[k - 1] + both) * C;
    values[`RF${k}`] = k === 1 ? (R * dcOfLadder(ladder)) / gain : R;
    if (k < order) values[`RB${k}`] = R;
    if (!odd(k)) values[`RI${k}`] = values[`RJ${k}`] = OHMS;
    if (trap(k) > 0) values[`CF${k + 1}`] = values[`CR${k - 1}`] = trap(k) * C;
  }
  values.RD1 = R;
  values[`RD${order}`] = odd(order) ? R * ladder.loadOhms : R / ladder.loadOhms;
  return values;
}

function figuresOf(order: number, zeros: boolean, v: Values): StageFigures {
  const G = squareOf(order);
  const C = squareOf(order);
  for (const k of states(order)) {
    // Rows are written for the output u of each state; an even state's integrator is -u RI/RJ.
    const own = odd(k) ? 1 : -v[`RI${k}`] / v[`RJ${k}`];
    C[k - 1][k - 1] = own * v[`C${k}`];
    if (v[`RD${k}`] !== undefined) G[k - 1][k - 1] = own / v[`RD${k}`];
    if (k > 1) G[k - 1][k - 2] = 1 / v[`RF${k}`];
    if (k < order) G[k - 1][k] = 1 / v[`RB${k}`];
    if (v[`CF${k}`] !== undefined) C[k - 1][k - 3] = v[`CF${k}`];
    if (v[`CR${k}`] !== undefined) C[k - 1][k + 1] = v[`CR${k}`];
  }
  const drive = new Array<number>(order).fill(0);
  drive[0] = -1 / v.RF1;
  const figures = figuresOfStates({ conductance: G, capacitance: C, drive });
  if (!zeros) return figures;
  const zerosHz = states(order)
    .filter((k) => !odd(k) && v[`CF${k + 1}`] !== undefined)
    .map((k) => {
      const inverter = v[`RJ${k}`] / v[`RI${k}`];
      return (
        Math.sqrt(inverter / (v[`C${k}`] * v[`RF${k}`] * v[`RF${k + 1}`] * v[`CF${k + 1}`])) /
        TWO_PI
      );
    });
  return { ...figures, zerosHz };
}

function drawingOf(order: number, zeros: boolean) {
  const lines: string[] = ['in 0,10', '0,10 1,10'];
  const left = states(order).map((k) => 18 * (k - 1) + 15 * Math.floor((k - 1) / 2));
  const end = (k: number) => left[k - 1] + (odd(k) ? 16 : 30);
  const outY = (k: number) => (odd(k) ? 11 : 12);
  for (const k of states(order)) {
    const x = left[k - 1];
    const p = (dx: number, y: number) => `${x + dx},${y}`;
    lines.push(
      `resistor RF${k} ${p(1, 10)} right / ${p(5, 10)} ${p(8, 10)} / op-amp A${k} ${p(8, 10)} minus`,
      `${p(8, 12)} ${p(8, 13)} / ground ${p(8, 13)} / ${p(7, 10)} ${p(7, 6)} ${p(8, 6)}`,
      `capacitor C${k} ${p(8, 6)} right / ${p(12, 6)} ${p(14, 6)} ${p(14, 11)} / ${p(12, 11)} ${p(16, 11)}`,
    );
    if (k === 1 || k === order)
      lines.push(
        `${p(7, 6)} ${p(7, 3)} ${p(8, 3)} / resistor RD${k} ${p(8, 3)} right / ${p(12, 3)} ${p(14, 3)} ${p(14, 6)}`,
      );
    if (!odd(k))
      lines.push(
        `resistor RI${k} ${p(16, 11)} right / ${p(20, 11)} ${p(22, 11)} / op-amp AI${k} ${p(22, 11)} minus`,
        `${p(22, 13)} ${p(22, 14)} / ground ${p(22, 14)} / ${p(21, 11)} ${p(21, 7)} ${p(22, 7)}`,
        `resistor RJ${k} ${p(22, 7)} right / ${p(26, 7)} ${p(28, 7)} ${p(28, 12)} / ${p(26, 12)} ${p(30, 12)}`,
      );
    if (k < order) {
      const y = odd(k) ? 20 : 18;
      const [ex, ey] = [end(k + 1), outY(k + 1)];
      lines.push(
        `${p(6, 10)} ${p(6, 15)} ${p(5, 15)} / resistor RB${k} ${p(1, 15)} right / ${p(1, 15)} ${p(0, 15)} ${p(0, y)} ${ex},${y} ${ex},${ey}`,
        // To the next state.
        `${end(k)},${outY(k)} ${end(k)},10 ${left[k] + 1},10`,
      );
    } else
      lines.push(`${end(k)},${outY(k)} ${end(k) + 3},${outY(k)} / out ${end(k) + 3},${outY(k)}`);
    if (zeros && odd(k) && k > 2) {
      const before = left[k - 3];
      const y = k % 4 === 3 ? -4 : -7;
      lines.push(
        `${before + 15},11 ${before + 15},-1 ${p(2, -1)} / capacitor CF${k} ${p(2, -1)} right / ${p(6, -1)} ${p(6, 10)}`,
        `${p(13, 11)} ${p(13, y)} ${before + 11},${y} / capacitor CR${k - 2} ${before + 7},${y} right / ${before + 7},${y} ${before + 5},${y} ${before + 5},10`,
      );
    }
  }
  return sketch(lines.join('\n'));
}

/** The leapfrog low-pass of a given order, with or without zeros. */
export function leapfrog(order: number, zeros: boolean): Topology {
  const figures = (values: Values) => figuresOf(order, zeros, values);
  const s = sign(order);
  const family = `leapfrog${zeros ? '-zeros' : ''}`;
  return {
    id: `${family}-low-pass-${order}`,
    family,
    series: `${family}-low-pass`,
    name: `Leapfrog low-pass${zeros ? ' with zeros' : ''}, order ${order}`,
    short: `leapfrog ${order}`,
    asWords: `a leapfrog${zeros ? ' with zeros' : ''}`,
    kind: 'low-pass',
    order,
    opAmps: order + Math.floor(order / 2),
    gain: s < 0 ? 'inverting' : 'settable',
    ...(zeros ? { needsMatching: true } : {}),
    limits: { gain: s < 0 ? [-20, -0.05] : [0.05, 20], poles: zeros ? 'with-zeros' : 'all-pole' },
    drawing: drawingOf(order, zeros),
    design(ask, choice) {
      const gain = ask.gain ?? s;
      checkAsk(this, { ...ask, gain });
      return valuesOf(order, { ...ask, gain }, choice);
    },
    figures,
    explain(values) {
      const f = figures(values);
      const w0 = TWO_PI * f.f0Hz;
      const element = (name: string, k: number): Why => ({
        of: name,
        formula: `\\frac{${(values[name] * w0 * values[`RB${Math.min(k, order - 1)}`]).toPrecision(6)}}{2\\pi @f0 @RB${Math.min(k, order - 1)}}`,
        text:
          name[1] === 'F' || name[1] === 'R'
            ? 'A trap’s capacitor of the ladder, once in each direction: it makes a zero.'
            : `The ladder’s ${odd(k) ? 'shunt capacitor' : 'series coil'} ${k} as an integrator.`,
      });
      const list = Object.keys(values).map((name): Why => {
        const k = Number(name.replace(/\D/g, ''));
        if (name[0] === 'C') return element(name, k);
        const words: Record<string, string> = {
          F: k === 1 ? 'Brings the input in: it sets the gain.' : 'Couples to the state before.',
          B: 'Couples to the state behind: the frog leaps back.',
          D: k === 1 ? 'The ladder’s source resistor.' : 'The ladder’s load resistor.',
          I: 'Inverter: any equal pair.',
          J: 'Inverter: any equal pair.',
        };
        return { of: name, text: words[name[1]] };
      });
      return because(values, f, [...list, meanOfPoles(f, 'The geometric mean of the poles.')]);
    },
    about:
      'Every coil and capacitor of a ladder between two resistors becomes an integrator, and every wire a resistor. It inherits the ladder’s calm towards part errors, without a coil.',
    outputs: `The last state’s output${s < 0 ? ', inverted' : ''}; each inner state is a voltage or current of the ladder.`,
    tuning: 'All resistors together move f0; RF1 sets the gain.',
    sensitivity:
      'The lowest of all active forms: in the pass band part errors act only in second order.',
    avoid: 'Many op-amps, and inner states that peak above the output: check the headroom.',
  };
}

import { checkAsk, TWO_PI, type StageFigures, type Topology, type Values } from '../topology';
import { because } from '../why';
import { breakHz, DIVIDER_WHY, midGain, returningEdge, shapedGainDrawing } from './shaped-gain';

/**
 * H = 1 + s RF CG / ((1 + s RG CG)(1 + s RF CF)): a broad peak over unity whose two break points
 * stand `spread` apart.
 */
function figures(values: Values): StageFigures {
  const { RF, RG, CF, CG } = values;
  const w0 = 1 / Math.sqrt(RF * RG * CF * CG);
  const down = RF * CF + RG * CG;
  const boost = 1 + (RF * CG) / down;
  return {
    f0Hz: w0 / TWO_PI,
    gain: 1,
    boost,
    q: 1 / (Math.sqrt(boost) * w0 * down),
    own: { K: midGain(values), spread: (RG * CG) / (RF * CF) },
  };
}

export const shapedGainBoth: Topology = {
  id: 'shaped-gain-both',
  name: 'Gain stage with both ends trimmed',
  short: 'gain, both ends',
  asWords: 'a gain stage with both ends trimmed',
  kind: 'peak',
  order: 2,
  opAmps: 1,
  gain: 'unity',
  limits: { gain: [1, 1], own: { K: [1.1, 100], spread: [2, 1e4] } },
  onlyByName: true,
  drawing: shapedGainDrawing(true, true),
  design(ask, choice) {
    checkAsk(this, ask);
    const { K = 4, spread = 400 } = ask.own ?? {};
    const RG = choice?.ohms ?? 2200;
    const RF = (K - 1) * RG;
    const middle = 1 / (TWO_PI * ask.f0Hz);
    return { RF, RG, CF: middle / Math.sqrt(spread) / RF, CG: (middle * Math.sqrt(spread)) / RG };
  },
  figures,
  explain(values) {
    const f = figures(values);
    const [low, high] = [breakHz(values.RG, values.CG), breakHz(values.RF, values.CF)];
    return because(values, { ...f, own: { ...f.own, fl: low, fh: high } }, [
      ...DIVIDER_WHY,
      {
        of: 'CG',
        formula: '\\frac{1}{2\\pi @fl @RG}',
        text: 'Sets the lower break point.',
        rule: `Rule of thumb: the lower edge is at ${low.toPrecision(4)} Hz. Exact, alone: ${returningEdge(low, f.own!.K, 'lower')}`,
      },
      {
        of: 'CF',
        formula: '\\frac{1}{2\\pi @fh @RF}',
        text: 'Sets the upper break point.',
        rule: `Rule of thumb: the upper edge is at ${high.toPrecision(4)} Hz. Exact, alone: ${returningEdge(high, f.own!.K, 'upper')}`,
      },
      {
        of: 'f0',
        formula: '\\sqrt{@fl @fh}',
        text: 'The middle of the band, the geometric mean of the break points.',
      },
      {
        of: 'boost',
        formula: '1 + \\frac{@RF @CG}{@RF @CF + @RG @CG}',
        text: 'The gain really reached in the middle; the two ends take a little off.',
      },
    ]);
  },
  about:
    'Gain for the band that matters and unity on both sides of it, with two capacitors in the divider.',
  outputs: 'The op-amp’s output.',
  tuning: 'CG moves the lower end, CF the upper one, RF the gain.',
  sensitivity: 'One to one.',
  avoid: 'With break points closer than a decade the full gain is not reached.',
};

import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { partKindOf } from './index';
import { FIGURED_KINDS, figureIn, figuresOf, figureWords, withFigure } from './device-figures';

const opAmp = partKindOf('op-amp');
const quiet = OP_AMPS[0].model;
const figure = (field: string) => figuresOf(opAmp).find((f) => f.field === field)!;

test('every number of every offered device can be told, changed and told again', () => {
  for (const name of FIGURED_KINDS) {
    const kind = partKindOf(name);
    for (const { model } of kind.models!) {
      if (model === 'ideal') continue;
      const fields = figuresOf(kind).map((f) => f.field);
      const numbers = Object.entries(model as object).filter(([, v]) => typeof v === 'number');
      for (const [field] of numbers) expect(fields).toContain(field);
      for (const own of figuresOf(kind)) {
        const told = figureIn(model, own);
        if (!told) continue;
        const changed = withFigure(kind, model, own, told * 1.25);
        expect(figureIn(changed, own)).toBeCloseTo(told * 1.25, 12);
        expect(kind.model!.safeParse(changed).success).toBe(true);
        expect(figureIn(withFigure(kind, changed, own, told), own)).toBeCloseTo(told, 12);
      }
    }
  }
});

test('figures are told as data sheets tell them', () => {
  expect(figureWords(opAmp, quiet)).toBe('10\u00a0MHz, 9\u00a0V/µs, 5\u00a0nV/√Hz');
  expect(figureWords(opAmp, 'ideal')).toBe('');
  expect(figureWords(opAmp, quiet, 'comma')).toContain('9\u00a0V/µs');
});

test('what a device cannot be is refused in words, and nothing else is changed', () => {
  expect(() => withFigure(opAmp, quiet, figure('gainBandwidthHz'), -1)).toThrow(
    'Gain-bandwidth product: must be greater than zero.',
  );
  expect(() => withFigure(opAmp, quiet, figure('dcGainDb'), 3)).toThrow(
    'Open-loop gain: must be at least 20 dB.',
  );
  expect(() => withFigure(opAmp, quiet, figure('gainBandwidthHz'), null)).toThrow(
    'Gain-bandwidth product: an op-amp cannot be without it.',
  );
  const without = withFigure(opAmp, quiet, figure('slewVoltsPerSecond'), null);
  expect(figureIn(without, figure('slewVoltsPerSecond'))).toBeNull();
  expect(figureIn(quiet, figure('slewVoltsPerSecond'))).toBe(9);
});

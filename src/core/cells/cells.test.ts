import fc from 'fast-check';
import katex from 'katex';
import { OperatingPointSearch } from '@/core/analysis/dc/search';
import { OP_AMPS } from '@/core/circuit/op-amp-models';
import { compile } from '@/core/circuit/compile';
import { threshold } from '@/core/synth/threshold';
import { tune } from '@/core/synth/tune';
import { netsOfDrawing } from '@/core/topologies/instantiate';
import { circuitOfPlan, valuesOfPlan } from './build';
import type { CellPlan } from './cell';
import { CELLS } from './index';

const FET_INPUT = OP_AMPS.find((m) => m.name.startsWith('FET-input'))!.model;

describe.each(CELLS.map((c) => [c.id, c] as const))('%s', (_, cell) => {
  const plan = cell.plan(cell.usual);
  const resonance = plan.controls.findIndex((c) => c.for === 'resonance');
  const place = (cutOff: number, singing: number) =>
    plan.controls.map((c) =>
      c.for === 'cut-off' ? cutOff : c.for === 'resonance' ? singing : c.at,
    );

  test('is drawn soundly, and every part that is drawn is planned', () => {
    const nets = netsOfDrawing(cell.drawing);
    expect(nets.faults).toEqual([]);
    for (const { id, kind } of nets.parts)
      if (kind !== 'op-amp') expect(plan.parts).toHaveProperty(id);
    for (const words of [cell.about, cell.control, cell.bias, cell.avoid])
      expect(words.length).toBeGreaterThan(30);
    const at = plan.controls.map((c) => c.at);
    const reasons = cell.reasons(valuesOfPlan(cell, plan, at));
    expect(reasons.length).toBeGreaterThan(1);
    const drawn = new Set(nets.parts.map((p) => p.id));
    for (const { of, text, formula, numbers } of reasons) {
      expect(of.split(' ').filter((id) => !drawn.has(id))).toEqual([]);
      expect(text).toMatch(/\.$/);
      for (const tex of [formula, numbers])
        if (tex !== undefined)
          expect(katex.renderToString(tex, { throwOnError: true, strict: 'ignore' })).not.toContain(
            'NaN',
          );
    }
  });

  test('agrees with its textbook over the range of its control', () => {
    for (const cutOff of [0, 0.3, 0.7, 1]) {
      const at = place(cutOff, 0.5);
      const figures = cell.textbook(valuesOfPlan(cell, plan, at));
      const span = cell.usual.highHz / cell.usual.lowHz;
      const planned = figures.f0Hz / (cell.usual.lowHz * span ** cutOff);
      if (!cell.ownLaw) expect(planned).toBeCloseTo(1, 6);
      // Values that can be bought bring it near the ends that were asked for.
      else if (cutOff === 0 || cutOff === 1) expect(Math.abs(Math.log2(planned))).toBeLessThan(0.3);
      const [row] = [...tune(() => circuitOfPlan(cell, plan, at), 'out', [0])];
      expect(row.stable).toBe(true);
      // Two real poles are no pair.
      if (figures.q === undefined || figures.q <= 0.5) expect(row.q).toBeNull();
      else expect(Math.abs(row.q! / figures.q - 1)).toBeLessThan(cell.agrees);
      const gainDb = 20 * Math.log10(Math.abs(figures.gain));
      const level = cell.passes === 'peak' ? row.peakDb : row.plateauDb;
      expect(Math.abs(level - gainDb)).toBeLessThan(9 * cell.agrees);
    }
  });

  test('holds with real op-amps too: their inputs the right way round', () => {
    for (const cutOff of [0, 0.5]) {
      const at = place(cutOff, 0.3);
      const { q } = cell.textbook(valuesOfPlan(cell, plan, at));
      const [row] = [...tune(() => circuitOfPlan(cell, plan, at, FET_INPUT), 'out', [0])];
      expect(row.stable).toBe(true);
      // Of the usual range, three megahertz are far away.
      if (q !== undefined && q > 0.5) expect(row.q! / q).toBeCloseTo(1, 0);
    }
  });

  const sings = cell.textbook(valuesOfPlan(cell, plan, place(0.6, 0.5))).singsAt !== undefined;
  if (sings)
    test('begins to sing where its textbook says', () => {
      const at = (turn: number) => circuitOfPlan(cell, plan, place(0.6, turn));
      const { value, hz } = threshold(at, { from: 0.5, to: 1, even: true });
      const { loop, singsAt } = cell.textbook(valuesOfPlan(cell, plan, place(0.6, value!)));
      expect(Math.abs(loop! / singsAt!.loop - 1)).toBeLessThan(cell.agrees);
      expect(Math.abs(hz! / singsAt!.hz - 1)).toBeLessThan(cell.agrees);
      expect(resonance).toBeGreaterThanOrEqual(0);
    });

  test('finds its operating point at a thousand legal settings', () => {
    const off = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), {
      minLength: 60,
      maxLength: 60,
    });
    const turns = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), {
      minLength: plan.controls.length,
      maxLength: plan.controls.length,
    });
    const { leastHz, mostHz } = cell.limits;
    const within = fc.double({ min: 0, max: 0.5, noNaN: true });
    // Ranges of all kinds; planning anew for each setting would take longer than solving it.
    const plans = fc.sample(fc.tuple(within, within), 40).map(([low, width]) => {
      const lowHz = leastHz * (mostHz / leastHz) ** low;
      return cell.plan({ lowHz, highHz: lowHz * (mostHz / leastHz) ** Math.max(0.05, width) });
    });
    fc.assert(
      fc.property(
        off,
        turns,
        fc.constantFrom(...plans),
        fc.constantFrom('ideal', FET_INPUT),
        (factors, at, own, opAmp) => {
          // Values a decade either way of the plan's: whatever someone may solder in.
          const changed: CellPlan = {
            ...own,
            parts: Object.fromEntries(
              Object.entries(own.parts).map(([id, part], k) => [
                id,
                part.value === undefined || part.value < 0 || id.startsWith('V')
                  ? part
                  : { ...part, value: part.value * 10 ** factors[k % 60] },
              ]),
            ),
          };
          const circuit = circuitOfPlan(cell, changed, at, opAmp);
          const x = new OperatingPointSearch(compile(circuit, 'large-signal')).find();
          return x.every((v) => Number.isFinite(v));
        },
      ),
      { numRuns: 1000 },
    );
  });
});

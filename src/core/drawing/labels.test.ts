import { mainHz } from '@/core/design/ask';
import { demoMade } from '@/testing/demo';
import { formatQuantity } from '@/core/quantity/format';
import { parseQuantity } from '@/core/quantity/parse';
import { defaultTarget } from '@/core/sheet/default-target';
import { DEFAULT_PARTS, makeStage } from '@/core/sheet/make';
import { composeDrawing, composedId } from '@/core/sheet/path-drawing';
import { partNames } from '@/core/sheet/path-circuit';
import type { Stage } from '@/core/sheet/schema';
import { drawingOf, valuesOf } from '@/core/sheet/stage';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import type { Drawing } from './drawing';
import { valuedParts } from '@/core/topologies/instantiate';
import { mainQuantity } from '@/core/parts/quantities';
import { fitLabels, placeLabels, TEXT_SIZE, textBox, type Layout, type PartLabel } from './labels';
import { bodyOf, boxShape, linesOf, overlap } from './shapes';

const EXACT = {
  ...DEFAULT_PARTS,
  resistors: 'exact',
  capacitors: 'exact',
  inductors: 'exact',
} as const;
const stageOf = (id: string) =>
  makeStage(id, topologyOf(id), defaultTarget(topologyOf(id), 1234), EXACT, 'hand');

/** Words as the circuit panel writes them, every value with a note. */
function labelsOf(stages: readonly Stage[]): Record<string, PartLabel> {
  const names = partNames(stages);
  const labels: Record<string, PartLabel> = {};
  for (const stage of stages) {
    for (const [local, name] of names.get(stage.id)!)
      labels[composedId(stage.id, local)] = { name };
    for (const { id, kind } of valuedParts({ drawing: drawingOf(stage) })) {
      const value = formatQuantity(valuesOf(stage)[id], mainQuantity(kind)!.quantity, {
        digits: 4,
      });
      const label = labels[composedId(stage.id, id)];
      labels[composedId(stage.id, id)] = { ...label, value, note: 'exact 28k77' };
    }
  }
  return labels;
}

/** Every pair of things on paper that cover each other. */
function collisions(drawing: Drawing, { parts, ports }: Layout, scale: number): string[] {
  const words = [...[...parts.values()].flat(), ...ports];
  const boxes = words.map((w) => ({ what: `“${w.text}”`, shape: boxShape(textBox(w)) }));
  const bodies = drawing.symbols.map((s) => ({
    what: 'id' in s ? s.id : s.kind,
    shape: bodyOf(s, scale),
  }));
  const lines = linesOf(drawing, scale).map((shape, i) => ({ what: `line ${i}`, shape }));
  const found: string[] = [];
  boxes.forEach((a, i) => {
    for (const b of [...boxes.slice(i + 1), ...bodies, ...lines])
      if (overlap(a.shape, b.shape)) found.push(`${a.what} on ${b.what}`);
  });
  bodies.forEach((a, i) => {
    for (const b of bodies.slice(i + 1))
      if (overlap(a.shape, b.shape)) found.push(`${a.what} on ${b.what}`);
  });
  return found;
}

describe.each(TOPOLOGIES.map((t) => t.id))('%s', (id) => {
  const stage = stageOf(id);
  const drawing = composeDrawing([stage]);
  const labels = labelsOf([stage]);

  test('no label, symbol or line covers another, and every value can be read', () => {
    const layout = placeLabels(drawing, labels, 22);
    expect(collisions(drawing, layout, 22)).toEqual([]);
    for (const [part, { value }] of Object.entries(labels))
      if (value !== undefined)
        expect([part, layout.parts.get(part)?.some((w) => w.text.endsWith(value))]).toEqual([
          part,
          true,
        ]);
  });

  test('fits the panel of a small screen and of a large one, without collisions', () => {
    for (const room of [
      { width: 470, height: 300 },
      { width: 720, height: 560 },
    ]) {
      const { scale, layout } = fitLabels(drawing, labels, room);
      expect(collisions(drawing, layout, scale)).toEqual([]);
      const { left, top, right, bottom } = layout.extent;
      expect(right - left).toBeLessThanOrEqual(room.width);
      expect(bottom - top).toBeLessThanOrEqual(room.height);
    }
  });

  test('its own labels, typed back, are accepted', () => {
    for (const { id: part, kind } of valuedParts(topologyOf(id))) {
      const { quantity } = mainQuantity(kind)!;
      for (const mark of ['point', 'comma'] as const)
        for (const unit of [false, true]) {
          const text = formatQuantity(valuesOf(stage)[part], quantity, { digits: 4, mark, unit });
          expect(parseQuantity(text, quantity, mark)).toBeCloseTo(
            Number(valuesOf(stage)[part].toPrecision(4)),
            15 - Math.log10(valuesOf(stage)[part]),
          );
        }
    }
  });
});

test('whole paths fit the panel too', () => {
  for (const sheet of demoMade('2026-11-23T08:00:00.000Z').filter((s) => !s.crossover)) {
    const { stages } = sheet.ways[0];
    const drawing = composeDrawing(stages);
    const { scale, layout } = fitLabels(drawing, labelsOf(stages), { width: 470, height: 300 });
    expect([mainHz(sheet.ask), collisions(drawing, layout, scale)]).toEqual([
      mainHz(sheet.ask),
      [],
    ]);
    expect(layout.extent.right - layout.extent.left).toBeLessThanOrEqual(470);
  }
});

test('no words are smaller than eleven pixels', () =>
  expect(Math.min(...Object.values(TEXT_SIZE))).toBeGreaterThanOrEqual(11));

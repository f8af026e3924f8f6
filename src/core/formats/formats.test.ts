/** @jest-environment jsdom */
import '@/testing/dom';
import Papa from 'papaparse';
import { drawn } from '@/core/drawing/grow/layout';
import { isPart, type Drawing } from '@/core/drawing/drawing';
import { randomCircuit } from '@/core/drawing/testing/random-circuit';
import { PART_KINDS } from '@/core/parts';
import { designOf } from '@/core/sheet/design-of';
import { SheetEvaluator } from '@/core/sheet/evaluate';
import { TOPOLOGIES, topologyOf } from '@/core/topologies';
import { AT, LOW_PASS, newSheet } from '@/testing/open-sheet';
import { responseCsv } from './csv';
import { schematicSvg } from './schematic-svg';

describe('the response as text', () => {
  const plain = newSheet();
  const sheet = {
    ...plain,
    keeps: [{ id: 'k', name: 'a "quoted", name', at: AT, shown: true, design: designOf(plain) }],
  };
  const evaluation = new SheetEvaluator().evaluate(sheet);
  const text = responseCsv(evaluation, sheet);
  const { data, errors } = Papa.parse<Record<string, string>>(text, {
    header: true,
    skipEmptyLines: true,
  });

  test('reads back with every layer’s points, to seven digits', () => {
    expect(errors).toEqual([]);
    expect(text.endsWith('\r\n')).toBe(true);
    let row = 0;
    for (const { trace } of evaluation.layers)
      trace.frequenciesHz.forEach((hz, k) => {
        const { frequency_hz, level_db, phase_degrees } = data[row++];
        expect(Math.abs(Number(frequency_hz) / hz - 1)).toBeLessThan(1e-8);
        expect(Number(level_db)).toBeCloseTo(trace.levelDb[k], 4);
        expect(Number(phase_degrees)).toBeCloseTo(trace.phaseDegrees[k], 3);
      });
    expect(data).toHaveLength(row);
  });

  test('names layers as the screen does, whatever a keep is called', () => {
    expect([...new Set(data.map((r) => r.layer))]).toEqual([
      'ideal',
      'built',
      'keep “a "quoted", name”',
    ]);
  });
});

describe('a schematic as a picture', () => {
  const parse = (svg: string) => {
    const document = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(document.querySelector('parsererror')?.textContent ?? '').toBe('');
    return document.documentElement;
  };
  const labelled = (drawing: Drawing) =>
    Object.fromEntries(
      drawing.symbols.filter(isPart).map(({ id }) => [id, { name: id, value: '10k' }]),
    );
  const texts = (svg: Element) => [...svg.querySelectorAll('text')].map((t) => t.textContent);
  const extent = (svg: Element) => svg.getAttribute('viewBox')!.split(' ').map(Number);

  test.each(TOPOLOGIES.filter((_, i) => i % 12 === 0).map((t) => [t.id]))(
    '%s: well formed, every part with its name, all within its frame',
    (id) => {
      const { drawing } = topologyOf(id);
      const svg = parse(schematicSvg(drawing, labelled(drawing), { title: id }));
      const [x, y, width, height] = extent(svg);
      expect([width, height]).toEqual(
        ['width', 'height'].map((side) => Number(svg.getAttribute(side))),
      );
      for (const part of drawing.symbols.filter(isPart)) expect(texts(svg)).toContain(part.id);
      for (const text of svg.querySelectorAll('text')) {
        const [tx, ty] = ['x', 'y'].map((side) => Number(text.getAttribute(side)));
        expect(tx).toBeGreaterThanOrEqual(x);
        expect(tx).toBeLessThanOrEqual(x + width);
        expect(ty).toBeGreaterThanOrEqual(y);
        expect(ty).toBeLessThanOrEqual(y + height);
      }
    },
  );

  test.each([3, 14, 159])('of random circuit %d too, with no number that is none', (seed) => {
    const drawing = drawn(randomCircuit(seed, 9));
    const svg = schematicSvg(drawing, labelled(drawing));
    parse(svg);
    expect(svg).not.toMatch(/NaN|undefined|Infinity/);
  });

  test('every kind of part has strokes', () => {
    for (const { kind } of PART_KINDS) {
      const drawing: Drawing = { symbols: [{ kind, id: 'X1', at: [0, 0] }], wires: [] };
      const svg = parse(schematicSvg(drawing, { X1: { name: 'X1', value: '' } }));
      expect(svg.querySelectorAll('g g path').length).toBeGreaterThan(0);
    }
  });

  test('resistors as boxes or as zigzags', () => {
    const { drawing } = topologyOf('rc-low-pass');
    const [boxes, zigzags] = (['box', 'zigzag'] as const).map((resistors) =>
      schematicSvg(drawing, labelled(drawing), { resistors }),
    );
    expect(boxes).not.toBe(zigzags);
  });

  test('whatever a title or a part is called, the file stays well formed', () => {
    const { drawing } = topologyOf('rc-low-pass');
    const labels = Object.fromEntries(
      Object.keys(labelled(drawing)).map((id) => [id, { name: `<${id}&"`, value: '1<2' }]),
    );
    const title = 'a < b & "c" \u0000\u0008\u001f\ud800 d';
    const svg = parse(schematicSvg(drawing, labels, { title }));
    expect(svg.querySelector('title')!.textContent).toMatch(/^a < b & "c" .*d$/);
    expect(texts(svg)).toContain('<R1&"');
  });
});

test('a sheet without keeps has two layers', () => {
  const sheet = newSheet(LOW_PASS);
  const csv = responseCsv(new SheetEvaluator().evaluate(sheet), sheet);
  expect(
    new Set(
      csv
        .split('\r\n')
        .slice(1, -1)
        .map((line) => line.split(',')[0]),
    ),
  ).toEqual(new Set(['ideal', 'built']));
});

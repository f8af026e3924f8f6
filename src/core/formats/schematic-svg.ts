import { isPart, onPaper, type Drawing, type PartOnPaper } from '@/core/drawing/drawing';
import { placeLabels, TEXT_SIZE, type PartLabel, type PlacedText } from '@/core/drawing/labels';
import { readNets } from '@/core/drawing/nets';
import { GROUND_STROKE, PORT_DOT, strokesOf, turnOf } from '@/core/drawing/strokes';
import { partKindOf } from '@/core/parts';
import { UNIT, type ResistorLook } from '@/core/parts/part-kind';
import { escaped } from './xml';

export interface SvgOptions {
  /** Pixels of a grid unit. */
  scale?: number;
  resistors?: ResistorLook;
  title?: string;
}

const INK = '#22303A';
const SOFT = '#5B6770';
const PAPER = '#FFFFFF';
const EDGE = 12;

/** A drawing with its words as an SVG document, on white paper. */
export function schematicSvg(
  drawing: Drawing,
  labels: Readonly<Record<string, PartLabel>>,
  { scale = 22, resistors = 'box', title = '' }: SvgOptions = {},
): string {
  const layout = placeLabels(drawing, labels, scale);
  const { left, top, right, bottom } = layout.extent;
  const [x, y] = [left - EDGE, top - EDGE];
  const [width, height] = [right - left + 2 * EDGE, bottom - top + 2 * EDGE].map(Math.ceil);
  const lines = drawing.wires.map((wire) => {
    const d = wire.map(([wx, wy], k) => `${k === 0 ? 'M' : 'L'}${wx * scale} ${wy * scale}`);
    return `<path d="${d.join('')}"/>`;
  });
  const dots = readNets(drawing).dots.map(
    ([dx, dy]) => `<circle cx="${dx * scale}" cy="${dy * scale}" r="3" fill="${INK}"/>`,
  );
  const symbols = drawing.symbols.map((symbol) => {
    const at = `translate(${symbol.at[0] * scale} ${symbol.at[1] * scale}) scale(${scale / UNIT})`;
    if (isPart(symbol)) return partSvg(symbol, at, scale, resistors);
    if (symbol.kind === 'ground') return `<path transform="${at}" d="${GROUND_STROKE}"/>`;
    return symbol.kind === 'port'
      ? `<circle transform="${at}" r="${PORT_DOT}" fill="${PAPER}"/>`
      : '';
  });
  const words = [
    ...layout.ports,
    ...drawing.symbols.flatMap((s) => (isPart(s) ? (layout.parts.get(s.id) ?? []) : [])),
  ];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${x} ${y} ${width} ${height}">`,
    ...(title === '' ? [] : [`<title>${escaped(title)}</title>`]),
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${PAPER}"/>`,
    `<g fill="none" stroke="${INK}" stroke-width="1.5" stroke-linejoin="round">`,
    ...lines,
    ...symbols,
    '</g>',
    ...dots,
    ...words.map(wordSvg),
    '</svg>',
    '',
  ].join('\n');
}

function partSvg(part: PartOnPaper, at: string, scale: number, look: ResistorLook): string {
  const its = partKindOf(part.kind).symbol;
  const strokes = strokesOf(part, look).map(({ d, fill, dashed }) => {
    const filled = fill === 'ink' ? ` fill="${INK}" stroke="none"` : fill ? ` fill="${PAPER}"` : '';
    return `<path d="${d}"${filled}${dashed ? ' stroke-dasharray="4 4"' : ''}/>`;
  });
  const marks = (its.marks ?? []).map(({ text, at: own }) => {
    const [mx, my] = onPaper(part, own, its);
    return `<text x="${mx * scale}" y="${my * scale + 5}" text-anchor="middle" font-family="IBM Plex Mono, monospace" font-size="14" fill="${INK}" stroke="none">${escaped(text)}</text>`;
  });
  return [`<g transform="${at} ${turnOf(part)}">`, ...strokes, '</g>', ...marks].join('');
}

function wordSvg({ role, text, x, y, anchor }: PlacedText): string {
  const face = role === 'value' ? 'IBM Plex Mono, monospace' : 'Figtree, sans-serif';
  const weight = role === 'value' ? ' font-weight="600"' : '';
  return `<text x="${x}" y="${y}" text-anchor="${anchor}" font-family="${face}" font-size="${TEXT_SIZE[role]}"${weight} fill="${role === 'value' ? INK : SOFT}">${escaped(text)}</text>`;
}

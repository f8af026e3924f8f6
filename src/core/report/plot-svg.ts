import { escaped } from '@/core/formats/xml';
import { frequencyLabel, frequencyTicks } from '@/core/quantity/frequency-ticks';

/** A curve of a printed picture; how it is drawn tells what it is, without colour too. */
export interface PlotCurve {
  name: string;
  look: 'solid' | 'dashed' | 'dots';
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

export interface PlotBand {
  name: string;
  x: ArrayLike<number>;
  low: ArrayLike<number>;
  high: ArrayLike<number>;
}

export interface PlotOptions {
  title: string;
  fromHz: number;
  toHz: number;
  curves: readonly PlotCurve[];
  band?: PlotBand;
  unit?: string;
}

const SIZE = { width: 720, height: 360, left: 60, right: 16, top: 36, bottom: 34 };
const INK = '#22303A';
const SOFT = '#5B6770';
const GRID = '#DDD6C8';
const LINES = ['#B4561F', '#3D4F9F', '#1D6B5F', '#7A3E72'];
const BAND = '#F1E3D8';
/** The picture reaches at most so far under its highest point, dB. */
const DEPTH = 72;

/** Level over a log frequency axis as an SVG document, on white paper. */
export function plotSvg({ title, fromHz, toHz, curves, band, unit = 'dB' }: PlotOptions): string {
  const { width, height, left, right, top, bottom } = SIZE;
  const [low, high, step] = levels(curves, band);
  const xOf = (hz: number) =>
    left + (Math.log(hz / fromHz) / Math.log(toHz / fromHz)) * (width - left - right);
  const yOf = (db: number) =>
    top +
    ((high - Math.min(Math.max(db, low - DEPTH), high)) / (high - low)) * (height - top - bottom);
  const points = (x: ArrayLike<number>, y: ArrayLike<number>) =>
    Array.from(x, (hz, k) => [hz, y[k]] as const)
      .filter(([hz, v]) => hz >= fromHz * 0.999 && hz <= toHz * 1.001 && Number.isFinite(v))
      .map(([hz, v]) => `${xOf(hz).toFixed(1)},${yOf(v).toFixed(1)}`);
  const decades = frequencyTicks(fromHz, toHz);
  const rows: number[] = [];
  for (let db = Math.ceil(low / step) * step; db <= high + 1e-9; db += step) rows.push(db);
  const word = (x: number, y: number, words: string, anchor: string) =>
    `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" text-anchor="${anchor}" font-family="IBM Plex Mono, monospace" font-size="11" fill="${SOFT}">${escaped(words)}</text>`;
  const body = [
    ...(band
      ? [
          `<polygon points="${[...points(band.x, band.high), ...points(band.x, band.low).reverse()].join(' ')}" fill="${BAND}"/>`,
        ]
      : []),
    ...decades.map(
      (hz) => `<path d="M${xOf(hz).toFixed(1)} ${top}V${height - bottom}" stroke="${GRID}"/>`,
    ),
    ...rows.map(
      (db) => `<path d="M${left} ${yOf(db).toFixed(1)}H${width - right}" stroke="${GRID}"/>`,
    ),
    ...curves.map((curve, i) => curveSvg(curve, LINES[i % LINES.length], points(curve.x, curve.y))),
  ];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img">`,
    `<title>${escaped(title)}</title>`,
    `<defs><clipPath id="plot"><rect x="${left}" y="${top}" width="${width - left - right}" height="${height - top - bottom}"/></clipPath></defs>`,
    `<rect width="${width}" height="${height}" fill="#FFFFFF"/>`,
    `<g clip-path="url(#plot)">${body.join('')}</g>`,
    ...decades.map((hz) => word(xOf(hz), height - bottom + 16, frequencyLabel(hz), 'middle')),
    ...rows.map((db, i) =>
      word(
        left - 6,
        yOf(db) + 4,
        `${db}${i === rows.length - 1 ? ` ${unit}` : ''}`.replace('-', '−'),
        'end',
      ),
    ),
    ...keySvg(curves, band),
    '</svg>',
    '',
  ].join('\n');
}

function curveSvg({ look }: PlotCurve, colour: string, points: readonly string[]): string {
  if (look === 'dots')
    return points
      .map((p) => p.split(','))
      .map(([x, y]) => `<circle cx="${x}" cy="${y}" r="2" fill="${colour}"/>`)
      .join('');
  const dashes = look === 'dashed' ? ' stroke-dasharray="5 4"' : '';
  const width = look === 'dashed' ? 1.2 : 2;
  return `<polyline points="${points.join(' ')}" fill="none" stroke="${colour}" stroke-width="${width}"${dashes}/>`;
}

/** What is what, over the picture. */
function keySvg(curves: readonly PlotCurve[], band: PlotBand | undefined): string[] {
  let x = SIZE.left;
  const next = (sign: string, name: string) => {
    const at = x;
    x += 40 + 7 * name.length;
    return `<g transform="translate(${at} 18)">${sign}<text x="30" y="4" font-family="Figtree, sans-serif" font-size="12" fill="${INK}">${escaped(name)}</text></g>`;
  };
  return [
    ...curves.map((curve, i) =>
      next(
        curveSvg(
          curve,
          LINES[i % LINES.length],
          curve.look === 'dots' ? ['12,0'] : ['0,0', '24,0'],
        ),
        curve.name,
      ),
    ),
    ...(band
      ? [next(`<rect x="0" y="-6" width="24" height="12" fill="${BAND}"/>`, band.name)]
      : []),
  ];
}

/** The span of levels with a round step. */
function levels(
  curves: readonly PlotCurve[],
  band: PlotBand | undefined,
): [low: number, high: number, step: number] {
  const all = [...curves.map((c) => c.y), ...(band ? [band.low, band.high] : [])].flatMap((y) =>
    Array.from(y).filter(Number.isFinite),
  );
  const top = all.length > 0 ? all.reduce((a, b) => Math.max(a, b)) : 0;
  const floor = all.length > 0 ? all.reduce((a, b) => Math.min(a, b)) : -60;
  const high = Math.ceil((top + 1) / 6) * 6;
  const low = Math.max(Math.floor((floor - 1) / 6) * 6, high - DEPTH);
  const span = Math.max(high - low, 12);
  return [high - span, high, span > 48 ? 12 : span > 18 ? 6 : 3];
}

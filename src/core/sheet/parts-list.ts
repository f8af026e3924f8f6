import { AcAnalysis } from '@/core/analysis/ac/ac';
import { operatingPoint } from '@/core/analysis/dc/operating-point';
import type { Circuit } from '@/core/circuit/schema';
import { messageOf, ReedError } from '@/core/errors';
import { partKindOf } from '@/core/parts';
import { spaced } from '@/core/response/landmarks';
import { CORES, windCoil } from '@/core/speaker/coils/wind';
import { shaftsOf } from './controls';
import { namesInCircuit, pathCircuit } from './path-circuit';
import { REFERENCE_FARADS, REFERENCE_OHMS } from './reference-net';
import type { Sheet, StagePart, Supply } from './schema';
import { drawnParts, valuesOf } from './stage';

/** Parts of one kind and value that a board needs. */
export interface PartsLine {
  kind: string;
  /** Its main number; absent of devices, which go by name. */
  value?: number;
  /** What a device is called. */
  device?: string;
  /** How it is made, where that is asked for: the wire and the core of a coil. */
  build?: string;
  /** What one costs about, where that is not what is usual for its kind. */
  price?: number;
  /** What they are called on the drawing. */
  names: string[];
  /** How many a board takes: pairs count for two. */
  each: number;
  /** The closest tolerance that any of them is asked to have, where one is. */
  tolerance?: number;
  /** The highest voltage that stands across any of them, peak with what stands there at rest. */
  peakVolts?: number;
  /** The most that any of them takes, watts. */
  watts?: number;
  /** Entries of the drawer that they were chosen from. */
  stock: string[];
}

export interface PartsList {
  lines: PartsLine[];
  /** Why levels are not told, where they are not. */
  problems: string[];
}

/** What a part lives through. */
export interface Stress {
  peakVolts: number;
  watts?: number;
}

/** The signal is taken to be anything that can be heard, and a little beyond. */
const SIGNAL = { fromHz: 10, toHz: 40_000, points: 90 };

/** What is known of the parts of a sheet that is solved as something else than single ways. */
export interface KnownOfParts {
  /** What parts are called, by their names in the circuit. */
  names?: ReadonlyMap<string, string>;
  /** What they live through, by their names in the circuit. */
  stresses?: ReadonlyMap<string, Stress>;
  problems?: readonly string[];
  /** What one of a value costs about, where parts of its kind are not the usual small ones. */
  priceOf?: (kind: string, value: number) => number | undefined;
}

/**
 * Everything that a board of a sheet is built of, and what its capacitors and resistors have to stand
 * at the sheet's source level.
 */
export function partsList(sheet: Sheet, known: KnownOfParts = {}): PartsList {
  const lines = new Map<string, PartsLine>();
  const problems: string[] = [...(known.problems ?? [])];
  const shaftOf = shaftsOf(sheet);
  const bought = new Set<string>();
  sheet.ways.forEach((way, w) => {
    const stresses = known.stresses ?? stressesIn(sheet, w, problems);
    const nameOf = namesInCircuit(sheet, w);
    for (const stage of way.stages) {
      if (stage.bypassed) continue;
      const values = valuesOf(stage);
      for (const { id, kind } of drawnParts(stage)) {
        if (partKindOf(kind).price === null) continue;
        const part = stage.parts[id] as StagePart | undefined;
        const inCircuit = nameOf(stage, id);
        const stress = stresses.get(inCircuit);
        const name = known.names?.get(inCircuit) ?? inCircuit;
        const device = deviceName(sheet, kind, part);
        const shaft = kind === 'potentiometer' ? shaftOf(way, stage, id) : undefined;
        if (shaft) {
          const words = shaft.tracks > 2 ? [device, `${shaft.tracks} tracks`] : [device];
          const gang = { kind: 'ganged-potentiometer', device: words.filter(Boolean).join(', ') };
          // All its tracks are bought at once.
          const isFirst = !bought.has(shaft.control);
          bought.add(shaft.control);
          put(lines, { ...gang, value: values[id], name, part }, stress, isFirst ? 1 : 0);
          continue;
        }
        for (const piece of piecesOf(kind, values[id], part)) {
          const price = known.priceOf?.(kind, piece.value);
          const wound = woundOf(kind, piece.value, part);
          put(lines, { ...piece, price, ...wound, device, name, part }, stress);
        }
      }
    }
  });
  putReference(lines, sheet.parts.supply);
  return { lines: [...lines.values()].sort(inOrder), problems };
}

/** What is soldered in for one part of the drawing. */
function piecesOf(kind: string, value: number, part: StagePart | undefined) {
  const { how, of } = part?.made ?? { how: 'single', of: [value] };
  return of.map((one, i) => ({
    kind: how === 'trimmer' && i > 0 ? 'potentiometer' : kind,
    value: one,
  }));
}

/** How a coil that is wound for it is made, and what it costs. */
function woundOf(
  kind: string,
  henries: number,
  part: StagePart | undefined,
): Pick<PartsLine, 'build' | 'price'> {
  const wound = kind === 'inductor' ? part?.wound : undefined;
  if (!wound) return {};
  const { price } = windCoil(henries, wound.wireMetres, wound.core);
  const wire = Number((1000 * wound.wireMetres).toFixed(2));
  return { build: `${wire} mm wire, ${CORES[wound.core].words}`, price };
}

/** What the half-supply reference is made of, where a single rail feeds the sheet. */
function putReference(lines: Map<string, PartsLine>, supply: Supply | undefined): void {
  if (supply?.is !== 'single') return;
  const peakVolts = supply.volts / 2;
  const watts = peakVolts ** 2 / supply.ohms;
  const stresses = new Map<string, Stress>([
    ...REFERENCE_OHMS.map((name) => [name, { peakVolts, watts }] as const),
    [REFERENCE_FARADS, { peakVolts }],
  ]);
  for (const name of REFERENCE_OHMS)
    put(lines, { kind: 'resistor', value: supply.ohms, name }, stresses.get(name));
  const name = REFERENCE_FARADS;
  put(lines, { kind: 'capacitor', value: supply.farads, name }, stresses.get(name));
}

/** What a device is, in words; nothing for parts that go by a value. */
function deviceName(sheet: Sheet, kind: string, part: StagePart | undefined): string | undefined {
  if (part?.model) return part.model.name;
  if (kind === 'op-amp') return sheet.parts.opAmp.name;
  return partKindOf(kind).models?.[0]?.name;
}

function put(
  lines: Map<string, PartsLine>,
  {
    kind,
    value,
    device,
    build,
    price,
    name,
    part,
  }: Pick<PartsLine, 'kind' | 'value' | 'device' | 'build' | 'price'> & {
    name: string;
    part?: StagePart;
  },
  stress: Stress | undefined,
  pieces = 1,
): void {
  const key = `${kind} ${value?.toPrecision(6) ?? ''} ${device ?? ''} ${build ?? ''}`;
  let line = lines.get(key);
  if (!line) {
    line = {
      kind,
      ...(value === undefined ? {} : { value }),
      ...(device === undefined ? {} : { device }),
      ...(build === undefined ? {} : { build }),
      ...(price === undefined ? {} : { price }),
      names: [],
      each: 0,
      stock: [],
    };
    lines.set(key, line);
  }
  line.each += pieces;
  if (!line.names.includes(name)) line.names.push(name);
  if (part?.stock !== undefined && !line.stock.includes(part.stock)) line.stock.push(part.stock);
  if (part?.tolerance !== undefined) line.tolerance = Math.min(line.tolerance ?? 1, part.tolerance);
  if (!stress) return;
  line.peakVolts = Math.max(line.peakVolts ?? 0, stress.peakVolts);
  if (stress.watts !== undefined) line.watts = Math.max(line.watts ?? 0, stress.watts);
}

const inOrder = (a: PartsLine, b: PartsLine): number =>
  a.kind.localeCompare(b.kind) ||
  (a.value ?? 0) - (b.value ?? 0) ||
  (a.device ?? '').localeCompare(b.device ?? '');

/** What the resistors and capacitors of a way live through, by name. */
function stressesIn(sheet: Sheet, way: number, problems: string[]): Map<string, Stress> {
  try {
    return stressesOf(pathCircuit(sheet, way, 'built'), sheet.source.volts);
  } catch (error) {
    if (!(error instanceof ReedError)) throw error;
    problems.push(messageOf(error));
    return new Map();
  }
}

/** @param volts of the source, r.m.s. */
function stressesOf(circuit: Circuit, volts: number): Map<string, Stress> {
  const parts = circuit.parts.flatMap((p) =>
    p.kind === 'resistor' || p.kind === 'capacitor' ? [p] : [],
  );
  const nets = [...new Set(parts.flatMap(({ a, b }) => [a, b]))].filter(
    (n) => n !== circuit.ground,
  );
  const hz = spaced(SIGNAL.fromHz, SIGNAL.toHz, SIGNAL.points);
  const traces = new AcAnalysis(circuit).voltages(nets, hz);
  const { nodes } = operatingPoint(circuit);
  const silent = new Float64Array(hz.length);
  const traceOf = (net: string) => traces[nets.indexOf(net)] ?? { re: silent, im: silent };
  return new Map(
    parts.map((part) => {
      const [a, b] = [traceOf(part.a), traceOf(part.b)];
      let most = 0;
      for (let k = 0; k < hz.length; k++)
        most = Math.max(most, Math.hypot(a.re[k] - b.re[k], a.im[k] - b.im[k]));
      const rms = most * volts;
      const rest = (nodes[part.a] ?? 0) - (nodes[part.b] ?? 0);
      const peakVolts = rms * Math.SQRT2 + Math.abs(rest);
      return [
        part.id,
        part.kind === 'resistor'
          ? { peakVolts, watts: (rms * rms + rest * rest) / part.ohms }
          : { peakVolts },
      ];
    }),
  );
}

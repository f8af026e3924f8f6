import { squareRoot, type Complex } from '@/core/numeric/complex';
import {
  lowPassPrototype,
  orderOf,
  polesOfSection,
  prototypePhase,
  type PoleSection,
  type Prototype,
} from '@/core/response/prototypes';
import { findZero } from '@/core/numeric/root';
import {
  standardTransfer,
  type PoleFigure,
  type StageFigures,
  type StageKind,
} from '@/core/topologies/figures';
import { size } from '@/core/numeric/complex';
import { bandOf, centreOf, edgeOf, type Ask } from './ask';
import { givenOrder, leastOrder } from './limits';

/** One pole or pole pair of the wanted response, with unity gain where its kind counts it. */
export interface Section {
  kind: StageKind;
  figures: StageFigures;
}

/** A wanted response in sections, before topologies are chosen. */
export interface Sections {
  sections: Section[];
  /** What all sections together must be multiplied by, for a pass band of 0 dB. */
  level: number;
  /** Where the level is counted: the sections' product there times `level` is 1 times the shape's own. */
  atHz: number | 'low' | 'high';
  order: number;
  notes: string[];
  /** The whole low-pass or high-pass by its poles and zeros, for topologies that take it whole. */
  whole?: { kind: 'low-pass' | 'high-pass'; poles: PoleFigure[]; zerosHz: number[] };
}

/** From an ask to its sections. */
export function sectionsOf(ask: Ask): Sections {
  switch (ask.kind) {
    case 'low-pass':
    case 'high-pass': {
      const { prototype, notes } = prototypeOf(ask);
      return passSections(
        ask.kind,
        prototype,
        ask.limits && 'passHz' in ask.limits ? ask.limits.passHz : ask.edgeHz!,
        notes,
      );
    }
    case 'band-pass':
    case 'band-stop': {
      const { prototype, notes } = prototypeOf(ask);
      const band =
        ask.limits && 'passLowerHz' in ask.limits
          ? { lowerHz: ask.limits.passLowerHz, upperHz: ask.limits.passUpperHz }
          : bandOf(ask);
      return ask.kind === 'band-pass'
        ? bandSections(prototype, band, notes)
        : stopSections(prototype, band, notes);
    }
    case 'wide-band': {
      const { prototype } = prototypeOf(ask);
      const { lowerHz, upperHz } = bandOf(ask);
      const high = passSections('high-pass', prototype, lowerHz, []);
      const low = passSections('low-pass', prototype, upperHz, []);
      return {
        sections: [...high.sections, ...low.sections],
        level: high.level * low.level,
        atHz: Math.sqrt(lowerHz * upperHz),
        order: ask.order!,
        notes:
          upperHz / lowerHz < 3
            ? [
                'The two edges are so close that their slopes overlap: the middle lies below 0 dB. Ask for a band-pass instead.',
              ]
            : [],
      };
    }
    default:
      return singleSections(ask);
  }
}

function prototypeOf(ask: Ask): { prototype: Prototype; notes: string[] } {
  if (ask.limits) {
    const { prototype, note } =
      ask.order === undefined ? leastOrder(ask) : givenOrder(ask, ask.order);
    return { prototype, notes: [note] };
  }
  const { shape, rippleDb, stopbandDb, rippleDegrees } = ask;
  return {
    prototype: lowPassPrototype({
      shape,
      order: ask.order!,
      edge: edgeOf(ask),
      rippleDb,
      stopbandDb,
      rippleDegrees,
    }),
    notes: [],
  };
}

/** Sections of a low-pass or high-pass; zeros go to the pairs of highest Q first, each the nearest. */
function passSections(
  kind: 'low-pass' | 'high-pass',
  prototype: Prototype,
  edgeHz: number,
  notes: string[],
): Sections {
  const place = (w: number) => (kind === 'low-pass' ? edgeHz * w : edgeHz / w);
  const free = prototype.zeros.map(place);
  const paired = [...prototype.sections]
    .map((s): PoleFigure => ({ f0Hz: place(s.w0), ...(s.q === undefined ? {} : { q: s.q }) }))
    .sort((a, b) => (b.q ?? 0) - (a.q ?? 0));
  const sections = paired.map((pole): Section => {
    if (pole.q === undefined || free.length === 0) return { kind, figures: { ...pole, gain: 1 } };
    const zeroHz = takeNearest(free, pole.f0Hz);
    // A high-pass section is counted far above, where a notch form has (f0/fz)^2 of its d.c. gain.
    return {
      kind: 'notch',
      figures: { ...pole, zeroHz, gain: kind === 'low-pass' ? 1 : (zeroHz / pole.f0Hz) ** 2 },
    };
  });
  return {
    sections,
    level: prototype.dcGain,
    atHz: kind === 'low-pass' ? 'low' : 'high',
    order: orderOf(prototype),
    notes,
    whole: { kind, poles: [...paired].reverse(), zerosHz: prototype.zeros.map(place) },
  };
}

/** Take the member nearest on a log scale out of a list. */
function takeNearest(list: number[], hz: number): number {
  let best = 0;
  list.forEach((x, i) => {
    if (Math.abs(Math.log(x / hz)) < Math.abs(Math.log(list[best] / hz))) best = i;
  });
  return list.splice(best, 1)[0];
}

interface Band {
  lowerHz: number;
  upperHz: number;
}

/** Each prototype pole p becomes the two roots of s^2 - p b s + 1 = 0, b the relative width. */
function bandPoles(sections: readonly PoleSection[], b: number, centreHz: number): PoleFigure[] {
  return sections.flatMap((section): PoleFigure[] => {
    const [p] = polesOfSection(section);
    if (section.q === undefined) return [{ f0Hz: centreHz, q: 1 / (section.w0 * b) }];
    const poles = section.q < 0.5 ? polesOfSection(section) : [p];
    if (section.q < 0.5) return poles.map((real) => ({ f0Hz: centreHz, q: 1 / (-real.re * b) }));
    const half: Complex = { re: (p.re * b) / 2, im: (p.im * b) / 2 };
    const root = squareRoot({ re: half.re ** 2 - half.im ** 2 - 1, im: 2 * half.re * half.im });
    return [1, -1].map((sign) => {
      const s = { re: half.re + sign * root.re, im: half.im + sign * root.im };
      const w = size(s);
      return { f0Hz: centreHz * w, q: w / (-2 * s.re) };
    });
  });
}

/** The pair of zeros that a prototype zero at z becomes, as ratios to the centre. */
const bandZeros = (z: number, b: number): [number, number] => {
  const half = (z * b) / 2;
  const up = half + Math.sqrt(half * half + 1);
  return [up, 1 / up];
};

/** Band-pass by the geometric transform; level counted at the geometric centre. */
function bandSections(prototype: Prototype, { lowerHz, upperHz }: Band, notes: string[]): Sections {
  const centreHz = Math.sqrt(lowerHz * upperHz);
  const b = (upperHz - lowerHz) / centreHz;
  const poles = bandPoles(prototype.sections, b, centreHz).sort((x, y) => y.q! - x.q!);
  const zeros = prototype.zeros.flatMap((z) => bandZeros(z, b).map((r) => r * centreHz));
  const sections = poles.map((pole): Section => {
    if (zeros.length === 0) return { kind: 'band-pass', figures: { ...pole, gain: 1 } };
    return { kind: 'notch', figures: { ...pole, zeroHz: takeNearest(zeros, pole.f0Hz), gain: 1 } };
  });
  return {
    sections,
    level: prototype.dcGain / magnitudeOf(sections, centreHz),
    atHz: centreHz,
    order: orderOf(prototype),
    notes,
  };
}

/** Band-stop: the prototype's high-pass through the same transform; every section is a notch. */
function stopSections(prototype: Prototype, { lowerHz, upperHz }: Band, notes: string[]): Sections {
  const centreHz = Math.sqrt(lowerHz * upperHz);
  const b = (upperHz - lowerHz) / centreHz;
  const inverted = prototype.sections.map((s) => ({ ...s, w0: 1 / s.w0 }));
  const poles = bandPoles(inverted, b, centreHz).sort((x, y) => y.q! - x.q!);
  const zeros = prototype.zeros.flatMap((z) => bandZeros(1 / z, b).map((r) => r * centreHz));
  while (zeros.length < poles.length) zeros.push(centreHz);
  return {
    sections: poles.map((pole) => ({
      kind: 'notch',
      figures: { ...pole, zeroHz: takeNearest(zeros, pole.f0Hz), gain: 1 },
    })),
    level: prototype.dcGain,
    atHz: 'low',
    order: orderOf(prototype),
    notes,
  };
}

/** Notch, peak, shelves, tilt, all-pass. */
function singleSections(ask: Ask): Sections {
  const lift = 10 ** ((ask.gainDb ?? 0) / 20);
  const one = (kind: StageKind, figures: StageFigures[], order: number): Sections => ({
    sections: figures.map((f) => ({ kind, figures: f })),
    level: 1,
    atHz: 'low',
    order,
    notes: [],
  });
  switch (ask.kind) {
    case 'notch': {
      const { centreHz, q } = centreOf(ask);
      return one('notch', [{ f0Hz: centreHz, q, gain: 1 }], 2);
    }
    case 'peak': {
      const { centreHz, q } = centreOf(ask);
      return one('peak', [{ f0Hz: centreHz, q, gain: 1, boost: lift }], 2);
    }
    case 'tilt':
      return one('tilt', [{ f0Hz: ask.edgeHz!, gain: 1, boost: lift }], 1);
    case 'low-shelf':
    case 'high-shelf': {
      const order = ask.order ?? 1;
      const figures = { f0Hz: ask.edgeHz!, gain: 1, boost: lift ** (1 / order) };
      return one(
        ask.kind,
        Array.from({ length: order }, () => figures),
        order,
      );
    }
    default:
      return allPassSections(ask, one);
  }
}

/** An all-pass is placed where it has turned by 90 degrees for each order, half of its whole turn. */
function allPassSections(
  ask: Ask,
  one: (kind: StageKind, figures: StageFigures[], order: number) => Sections,
): Sections {
  if (ask.q !== undefined && ask.centreHz !== undefined)
    return one('all-pass', [{ f0Hz: ask.centreHz, q: ask.q, gain: 1 }], 2);
  const order = ask.order!;
  const { sections } = lowPassPrototype({
    shape: ask.shape,
    order,
    rippleDb: ask.rippleDb,
    stopbandDb: ask.stopbandDb,
    rippleDegrees: ask.rippleDegrees,
  });
  const middle = Math.exp(
    findZero(
      (u) => prototypePhase({ sections }, Math.exp(u)) + (order * Math.PI) / 4,
      -10,
      10,
      1e-14,
    ),
  );
  const figures = sections.map((s): StageFigures => ({
    f0Hz: (ask.edgeHz! * s.w0) / middle,
    ...(s.q === undefined ? {} : { q: s.q }),
    gain: 1,
  }));
  return one('all-pass', figures, order);
}

/** |product of sections| at one frequency. */
export function magnitudeOf(sections: readonly Section[], hz: number): number {
  return sections.reduce((m, s) => m * size(standardTransfer(s.kind, s.figures, hz)), 1);
}

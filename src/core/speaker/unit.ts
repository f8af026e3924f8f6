import type { Part } from '@/core/circuit/schema';
import { size, times, type Complex } from '@/core/numeric/complex';
import { REFERENCE_PASCALS, SPEED_OF_SOUND } from './air';
import { pistonFactor } from './bessel';
import { curveAt, curveOf, reaches, type Curve } from './curve';
import { figuresOf, type Unit } from './document';
import { equivalentAt, equivalentOf, equivalentParts, type Equivalent } from './equivalent';
import { coneRadius, type UnitFigures } from './figures';
import { minimumPhaseDegrees } from './minimum-phase';
import type { ImpedanceTable, LevelTable } from './measured';
import type { Sight } from './place';
import { workedLevel } from './tables/work';
import { unitParts } from './unit-parts';
import { unitAt } from './unit-response';

/** A unit as it is solved: its figures, and the curves of what was measured of it. */
export interface PreparedUnit {
  id: string;
  figures?: UnitFigures;
  level?: { curve: Curve; table: LevelTable };
  impedance?: { curve: Curve; equivalent: Equivalent };
  /** A resistance, and the pressure that a volt makes of it at one metre. */
  ideal?: { ohms: number; pascals: number };
  /** Radius of the piston that it beams as; absent where it does not. */
  pistonMetres?: number;
}

/** Tables are fitted and turned into curves once, however often their sheet is solved. */
const levelCurves = new WeakMap<LevelTable, Curve>();
const impedances = new WeakMap<ImpedanceTable, NonNullable<PreparedUnit['impedance']>>();

/** What was made of an object, once. */
export const remembered = <K extends object, V>(kept: WeakMap<K, V>, key: K, make: () => V): V => {
  let found = kept.get(key);
  if (!found) kept.set(key, (found = make()));
  return found;
};

/** @throws ReedError `range` for an impedance table that no circuit fits */
export function prepareUnit(unit: Unit): PreparedUnit {
  const { ideal } = unit;
  if (ideal) {
    const pascals = (REFERENCE_PASCALS * 10 ** (ideal.levelDb / 20)) / 2.83;
    return { id: unit.id, ideal: { ohms: ideal.ohms, pascals } };
  }
  const figures = figuresOf(unit);
  const { level, impedance } = unit.measured ?? {};
  const area = unit.sdSquareCentimetres;
  return {
    id: unit.id,
    ...(figures ? { figures } : {}),
    ...(level
      ? {
          level: {
            table: level,
            curve: remembered(levelCurves, level, () => {
              const { frequenciesHz, levelDb, phaseDegrees } = workedLevel(level);
              return curveOf(frequenciesHz, levelDb, phaseDegrees, level);
            }),
          },
        }
      : {}),
    ...(impedance
      ? { impedance: remembered(impedances, impedance, () => preparedImpedance(impedance)) }
      : {}),
    ...(unit.directivity === 'piston' && area !== undefined
      ? { pistonMetres: coneRadius(area) }
      : {}),
  };
}

/** Beyond a table the circuit that stands for it goes on: what they differ by does not grow. */
const EVEN_TAILS = { lowSlope: 0, highSlope: 0 };

/**
 * A table of impedance as a curve, and the circuit that stands for it. A phase that was not measured
 * is the circuit's, and the minimum phase of what the circuit leaves of the table.
 */
function preparedImpedance({
  frequenciesHz,
  ohms,
  phaseDegrees,
}: ImpedanceTable): NonNullable<PreparedUnit['impedance']> {
  const db = ohms.map(decibels);
  const span = [frequenciesHz[0], frequenciesHz[frequenciesHz.length - 1]] as const;
  const flat = curveOf(frequenciesHz, db, phaseDegrees ?? db.map(() => 0), EVEN_TAILS);
  const equivalent = equivalentOf(span, (hz) => curveAt(flat, hz), phaseDegrees !== undefined);
  if (phaseDegrees) return { curve: flat, equivalent };
  const fitted = frequenciesHz.map((hz) => equivalentAt(equivalent, hz));
  const left = db.map((x, k) => x - decibels(size(fitted[k])));
  const more = minimumPhaseDegrees(frequenciesHz, left, EVEN_TAILS);
  const degrees = fitted.map(({ re, im }, k) => (Math.atan2(im, re) * 180) / Math.PI + more[k]);
  return { curve: curveOf(frequenciesHz, db, degrees, EVEN_TAILS), equivalent };
}

const decibels = (ratio: number) => 20 * Math.log10(ratio);

/**
 * What a unit is to whoever drives it, in parts of a circuit: fitted to its measured impedance where
 * there is one, by its figures otherwise; in free air where no mounting is told.
 */
export function terminalParts(
  unit: Partial<UnitFigures> & Pick<Unit, 'measured' | 'ideal'>,
  at: { id: string; plus: string; minus: string },
): Part[] {
  const impedance = unit.measured?.impedance;
  if (unit.ideal)
    return [
      { id: `${at.id}.ohms`, kind: 'resistor', a: at.plus, b: at.minus, ohms: unit.ideal.ohms },
    ];
  if (impedance)
    return equivalentParts(
      remembered(impedances, impedance, () => preparedImpedance(impedance)).equivalent,
      at,
    );
  const { fsHz, qms, qes, reOhms, leHenries, mounting = { kind: 'open' } } = unit;
  return unitParts(
    {
      ...unit,
      fsHz: fsHz!,
      qms: qms!,
      qes: qes!,
      reOhms: reOhms!,
      leHenries: leHenries!,
      mounting,
    },
    at,
  );
}

/** Whether the impedance of a unit at a frequency is a measured one. */
export const isMeasuredAt = ({ impedance }: PreparedUnit, hz: number): boolean =>
  impedance !== undefined && reaches(impedance.curve, hz);

/** Impedance at the terminals: as measured where a table reaches, of the circuit that stands for it elsewhere. */
export function impedanceAt(unit: PreparedUnit, hz: number): Complex {
  const { impedance, figures, ideal } = unit;
  if (ideal) return { re: ideal.ohms, im: 0 };
  if (impedance && reaches(impedance.curve, hz)) return curveAt(impedance.curve, hz);
  return impedance ? equivalentAt(impedance.equivalent, hz) : unitAt(figures!, hz).impedanceOhms;
}

/**
 * Pressure on axis at one metre for a volt at the terminals: as measured where a table reaches, by the
 * figures beyond, and where there are none by the slopes that the table's tails are said to have.
 */
export function pressureAt({ level, figures, ideal }: PreparedUnit, hz: number): Complex {
  if (ideal) return { re: ideal.pascals, im: 0 };
  if (level && (!figures || reaches(level.curve, hz))) {
    const { re, im } = curveAt(level.curve, hz);
    const { atVolts, atMetres, delaySeconds } = level.table;
    const scale = (REFERENCE_PASCALS * atMetres) / atVolts;
    const angle = -2 * Math.PI * hz * delaySeconds;
    const [cos, sin] = [Math.cos(angle) * scale, Math.sin(angle) * scale];
    return { re: re * cos - im * sin, im: re * sin + im * cos };
  }
  return unitAt(figures!, hz).pascals;
}

/** Pressure at a listener for a volt at the terminals. */
export function heardAt(unit: PreparedUnit, sight: Sight, hz: number): Complex {
  return times(pressureAt(unit, hz), wayThrough(unit, sight, hz));
}

/** What becomes of that pressure on the way to a listener: exp(-j k r)/r, and how the unit beams. */
function wayThrough({ pistonMetres }: PreparedUnit, { metres, sine }: Sight, hz: number): Complex {
  const k = (2 * Math.PI * hz) / SPEED_OF_SOUND;
  const beam = pistonMetres === undefined ? 1 : pistonFactor(k * pistonMetres * sine);
  const size = beam / metres;
  return { re: size * Math.cos(k * metres), im: -size * Math.sin(k * metres) };
}

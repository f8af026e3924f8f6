import { inWords } from '@/core/quantity/format';
import type { QuantityKind } from '@/core/quantity/kinds';
import { orderOfPoles, type StageFigures } from './figures';
import { texQuantity } from './tex';
import { texValue } from './tex-value';
import type { Explanation, Values } from './topology';

/** A formula to explain by; `@R1` stands for a part's value, `@f0` for a figure. */
export interface Why {
  /** Parts and figures it explains, apart by spaces: "R1 R2" (which are then meant to be equal), "f0". */
  of: string;
  /** The right-hand side, in TeX with `@` names; none for what is chosen and follows from nothing. */
  formula?: string;
  /** A part that must be at least so large. */
  relation?: '\\ge';
  text: string;
  rule?: string;
}

/** Kind of quantity of a named value: a part by its letter, a figure by its name. */
export function quantityOf(name: string): QuantityKind {
  if (/^f/.test(name)) return 'hertz';
  return ({ R: 'ohms', C: 'farads', L: 'henries', G: 'siemens' } as const)[name[0]] ?? 'ratio';
}

/** A name as TeX writes it: R1 as R_{1}, f0 as f_{0}, gain as H. */
export function texName(name: string): string {
  const known: Record<string, string> = { gain: 'H', boost: 'G', Q: 'Q', depth: 'd' };
  return known[name] ?? (name.length > 1 ? `${name[0]}_{${name.slice(1)}}` : name);
}

/** Everything that formulas may name: parts' values, the common figures, and f1, f2, ... for poles. */
export function namedValues(values: Values, figures: StageFigures): Record<string, number> {
  const { f0Hz, q, gain, zeroHz, boost, depth, own, poles = [] } = figures;
  const named: Record<string, number | undefined> = {
    ...values,
    f0: f0Hz,
    Q: q,
    gain,
    fz: zeroHz,
    boost,
    depth,
    ...Object.fromEntries(poles.map((p, k) => [`f${k + 1}`, p.f0Hz])),
    ...own,
  };
  return Object.fromEntries(
    Object.entries(named).filter((e): e is [string, number] => e[1] !== undefined),
  );
}

/** f0 of a stage of many poles: their geometric mean, a pair counting twice. */
export function meanOfPoles({ poles = [] }: StageFigures, text: string): Why {
  const factors = poles.map(({ q }, k) => `@f${k + 1}${q === undefined ? '' : '^2'}`);
  return { of: 'f0', formula: `\\sqrt[${orderOfPoles(poles)}]{${factors.join(' ')}}`, text };
}

/** Figures of four digits agree to this. */
const SHOWN = 5e-4;
const agree = (a: number, b: number, within = SHOWN) => Math.abs(a - b) <= within * Math.abs(b);

/**
 * A formula with its numbers; where names stood side by side a dot is put between the numbers, and
 * negative ones stand in brackets.
 */
function withNumbers(
  formula: string,
  named: Readonly<Record<string, number>>,
  digits: number,
): string {
  return formula.replace(/@(\w+)/g, (_, name: string, at: number) => {
    const before = formula.slice(0, at).trimEnd();
    const multiplied = /[\w)}]$/.test(before) && !before.endsWith('\\cdot');
    const number = texQuantity(named[name], quantityOf(name), digits);
    const shown = named[name] < 0 ? `\\left(${number}\\right)` : number;
    return `${multiplied ? '\\cdot ' : ''}${shown}`;
  });
}

/** As few digits, from four, as let the printed numbers come to the printed result. */
function digitsFor(formula: string, named: Readonly<Record<string, number>>, result: number) {
  const enough = [4, 5, 6, 7].find((digits) => {
    const rounded: Record<string, number> = {};
    for (const [name, value] of Object.entries(named))
      rounded[name] = Number(value.toPrecision(digits));
    return agree(texValue(formula, rounded), result, SHOWN / 5);
  });
  return enough ?? 9;
}

/**
 * Explanations with numbers put in. What stands behind the last sign is what the numbers before it
 * come to; where the values at hand are not what the formula gives, that is said.
 */
export function because(
  values: Values,
  figures: StageFigures,
  list: readonly Why[],
): Explanation[] {
  const named = namedValues(values, figures);
  return list.flatMap((why) => {
    const names = why.of.split(' ');
    return names.map((name): Explanation => ({
      of: name,
      text: why.text,
      ...(why.rule === undefined ? {} : { rule: why.rule }),
      ...(why.formula === undefined
        ? chosen(names, named)
        : computed(name, names, { ...why, formula: why.formula }, named)),
    }));
  });
}

type Stated = Pick<Explanation, 'formula' | 'numbers' | 'off' | 'source'>;

/** Parts that were chosen: one by itself, or several that are meant to be equal. */
function chosen(names: readonly string[], named: Readonly<Record<string, number>>): Stated {
  const each = names.map((n) => `${texName(n)} = ${texQuantity(named[n], quantityOf(n))}`);
  const equal = names.every((n) => agree(named[n], named[names[0]]));
  return {
    formula: names.map(texName).join(' = '),
    numbers: each.join(',\\quad '),
    ...(equal
      ? {}
      : {
          off: 'They are meant to be equal and are not; the curve is that of the values at hand.',
        }),
  };
}

function computed(
  name: string,
  names: readonly string[],
  { formula, relation = undefined }: { formula: string; relation?: '\\ge' },
  named: Readonly<Record<string, number>>,
): Stated {
  const value = named[name];
  const result = texValue(formula, named);
  const sign = relation ?? '=';
  const symbols = formula.replace(/@(\w+)/g, (_, n: string) => texName(n));
  const left = (relation ? [name] : names).map(texName).join(' = ');
  const kind = quantityOf(name);
  const numbers = withNumbers(formula, named, digitsFor(formula, named, result));
  const holds = relation ? value >= result * (1 - SHOWN) : agree(result, value);
  const start = relation ? `${texQuantity(value, kind)} ${relation} ` : '';
  return {
    formula: `${left} ${sign} ${symbols}`,
    numbers: `${start}${numbers}${Number.isFinite(result) ? ` = ${texQuantity(result, kind)}` : ''}`,
    ...(holds ? {} : { off: offWords(result, value, kind) }),
    source: { formula, value, named },
  };
}

const offWords = (result: number, value: number, kind: QuantityKind): string =>
  `This is the formula of the design${Number.isFinite(result) ? `, and gives ${inWords(result, kind)}` : ', and has no value here'}; with the parts at hand it is ${inWords(value, kind)}. Card and curve show what the parts at hand do.`;

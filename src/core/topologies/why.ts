import type { QuantityKind } from '@/core/quantity/kinds';
import type { StageFigures } from './figures';
import { texQuantity } from './tex';
import type { Explanation, Values } from './topology';

/** A formula to explain by; `@R1` stands for a part's value, `@f0` for a figure. */
export interface Why {
  /** Parts and figures it explains, apart by spaces: "R1 R2", "f0". */
  of: string;
  /** The right-hand side, in TeX with `@` names. */
  formula: string;
  text: string;
  rule?: string;
  /** The left-hand side, where it is not simply what is explained. */
  left?: string;
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

/** Everything that formulas may name: parts' values and the common figures. */
export function namedValues(values: Values, figures: StageFigures): Record<string, number> {
  const { f0Hz, q, gain, zeroHz, boost, depth, own } = figures;
  const named: Record<string, number | undefined> = {
    ...values,
    f0: f0Hz,
    Q: q,
    gain,
    fz: zeroHz,
    boost,
    depth,
    ...own,
  };
  return Object.fromEntries(
    Object.entries(named).filter((e): e is [string, number] => e[1] !== undefined),
  );
}

/** A formula with its numbers; where names stood side by side a dot is put between the numbers. */
function withNumbers(formula: string, named: Readonly<Record<string, number>>): string {
  return formula.replace(/@(\w+)/g, (_, name: string, at: number) => {
    const before = formula.slice(0, at).trimEnd();
    const multiplied = /[\w)}]$/.test(before) && !before.endsWith('\\cdot');
    return `${multiplied ? '\\cdot ' : ''}${texQuantity(named[name], quantityOf(name))}`;
  });
}

/** Explanations with numbers put in. The conformance test computes every formula again from its text. */
export function because(
  values: Values,
  figures: StageFigures,
  list: readonly Why[],
): Explanation[] {
  const named = namedValues(values, figures);
  return list.flatMap(({ of, formula, text, rule, left }) => {
    const names = of.split(' ');
    const lhs = left ?? names.map(texName).join(' = ');
    const symbols = formula.replace(/@(\w+)/g, (_, name: string) => texName(name));
    const numbers = withNumbers(formula, named);
    const result =
      left === undefined ? ` = ${texQuantity(named[names[0]], quantityOf(names[0]))}` : '';
    return names.map((name): Explanation => ({
      of: name,
      formula: `${lhs} = ${symbols}`,
      numbers: `${numbers}${result}`,
      text,
      ...(rule === undefined ? {} : { rule }),
      ...(left === undefined ? { source: { formula, value: named[name], named } } : {}),
    }));
  });
}

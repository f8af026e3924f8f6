import { texValue } from '../tex-value';

const PREFIXES: Record<string, number> = { f: -15, p: -12, n: -9, µ: -6, m: -3, k: 3, M: 6, G: 9 };

/** "4.7\,\mathrm{k\Omega}" as 4700: shown numbers back to SI, so that the rest is arithmetic. */
function withoutUnits(tex: string): string {
  return tex.replace(
    /([\d.]+(?:e-?\d+)?)\\,\\mathrm\{([^}]*)\}/g,
    (_, number: string, unit: string) => {
      const plain = unit
        .replace(/\\Omega|F|Hz|H|S/, '')
        .replace('\\mu ', 'µ')
        .trim();
      const exponent = plain === '' ? 0 : PREFIXES[plain];
      if (exponent === undefined) throw new Error(`“${unit}” is no unit known here`);
      return `${Number(`${number}e${exponent}`)}`;
    },
  );
}

/**
 * The two sides of an equation as it is shown, or undefined for a list of chosen values. Of
 * "a >= b = c" the sides b and c.
 */
export function shownSides(tex: string): [number, number] | undefined {
  if (tex.includes('\\quad') || /^[A-Za-z]_?\{?\w*\}? = /.test(tex)) return undefined;
  const plain = withoutUnits(tex.replace(/\\left\(-/g, '\\left(-').replace(/−/g, '-'));
  const [, sum] = plain.includes('\\ge') ? plain.split('\\ge') : ['', plain];
  const at = sum.lastIndexOf(' = ');
  if (at < 0) return undefined;
  return [texValue(sum.slice(0, at), {}), texValue(sum.slice(at + 3), {})];
}

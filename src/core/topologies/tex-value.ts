/**
 * The number that a formula in TeX comes to: fractions, roots, powers, products written side by
 * side. Names stand as `@R1`. Enough for the explanations, whose formulas it checks.
 */
export function texValue(formula: string, named: Readonly<Record<string, number>>): number {
  const tokens =
    formula
      .replace(/\\left|\\right|\\,|\\;|\\quad|\\!/g, '')
      .replace(/\\tfrac|\\dfrac/g, '\\frac')
      .match(/\\[a-z]+|@\w+|\d+(\.\d+)?(e-?\d+)?|[-+^(){}[\]|]|½/g) ?? [];
  let at = 0;
  const peek = () => tokens[at];
  const take = (want?: string): string => {
    const token = tokens[at++];
    if (want !== undefined && token !== want)
      throw new Error(`“${want}” expected and “${token}” found in ${formula}`);
    return token;
  };
  const group = (): number => {
    if (peek() !== '{') return primary();
    take('{');
    const value = sum();
    take('}');
    return value;
  };
  const primary = (): number => {
    const token = take();
    if (token === '(') {
      const value = sum();
      take(')');
      return value;
    }
    if (token === '\\frac') {
      const over = group();
      return over / group();
    }
    if (token === '\\sqrt') {
      if (peek() !== '[') return Math.sqrt(group());
      take('[');
      const root = Number(take());
      take(']');
      return group() ** (1 / root);
    }
    if (token === '\\pi') return Math.PI;
    if (token === '\\ln') return Math.log(primary());
    if (token.startsWith('@')) {
      const value = named[token.slice(1)];
      if (value === undefined) throw new Error(`Nothing is called ${token} in ${formula}`);
      return value;
    }
    if (/^\d/.test(token)) return Number(token);
    throw new Error(`“${token}” is not understood in ${formula}`);
  };
  const power = (): number => {
    const base = primary();
    if (peek() !== '^') return base;
    take('^');
    return base ** group();
  };
  const product = (): number => {
    let value = power();
    while (at < tokens.length && !['+', '-', ')', '}', ']'].includes(peek())) {
      if (peek() === '\\cdot') take();
      value *= power();
    }
    return value;
  };
  const sum = (): number => {
    let value = peek() === '-' ? (take(), -product()) : product();
    while (peek() === '+' || peek() === '-') value += take() === '+' ? product() : -product();
    return value;
  };
  return sum();
}

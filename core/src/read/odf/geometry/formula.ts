/** What a formula of a shape may refer to (OpenDocument 1.3 part 3, 19.171 draw:formula). */
export interface FormulaNames {
  /** `left`, `top`, `width`, `logwidth`, `hasstroke` and the like. */
  constant(name: string): number | undefined;
  /** `?name`: the value of another formula. */
  equation(name: string): number;
  /** `$n`: a modifier. */
  modifier(index: number): number;
}

/** A formula that cannot be worked out: its text is no formula, or it needs itself. */
export class FormulaError extends Error {}

const FUNCTIONS: Record<string, { arguments: number; apply: (...n: number[]) => number }> = {
  abs: { arguments: 1, apply: Math.abs },
  sqrt: { arguments: 1, apply: Math.sqrt },
  sin: { arguments: 1, apply: Math.sin },
  cos: { arguments: 1, apply: Math.cos },
  tan: { arguments: 1, apply: Math.tan },
  atan: { arguments: 1, apply: Math.atan },
  atan2: { arguments: 2, apply: Math.atan2 },
  min: { arguments: 2, apply: Math.min },
  max: { arguments: 2, apply: Math.max },
  // The second where the first is greater than zero, else the third.
  if: { arguments: 3, apply: (test, yes, no) => (test > 0 ? yes : no) },
};

const TOKEN = /\s*(?:(\d+\.?\d*(?:[eE][-+]?\d+)?|\.\d+(?:[eE][-+]?\d+)?)|(\?[A-Za-z0-9_]+)|(\$\d+)|([A-Za-z][A-Za-z0-9]*)|([-+*/(),]))/y;
/** Brackets inside one another. */
const DEEPEST = 100;

/** Works out a formula: sums, products, signs, brackets and the functions above. Throws a FormulaError. */
export function evaluate(text: string, names: FormulaNames): number {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  const source = text.trim();
  while (TOKEN.lastIndex < source.length) {
    const found = TOKEN.exec(source);
    if (!found) throw new FormulaError(`“${text}” is no formula`);
    tokens.push(found[0].trim());
  }
  let at = 0;
  let depth = 0;
  const expect = (token: string): void => {
    if (tokens[at++] !== token) throw new FormulaError(`“${text}” lacks “${token}”`);
  };
  const sum = (): number => {
    if (++depth > DEEPEST) throw new FormulaError(`“${text.slice(0, 40)}…” is nested too deeply`);
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-') value = tokens[at++] === '+' ? value + product() : value - product();
    depth--;
    return value;
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '*' || tokens[at] === '/') value = tokens[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const factor = (): number => {
    let sign = 1;
    while (tokens[at] === '-' || tokens[at] === '+') if (tokens[at++] === '-') sign = -sign;
    return sign * single();
  };
  const single = (): number => {
    const token = tokens[at++];
    if (token === undefined) throw new FormulaError(`“${text}” breaks off`);
    if (token === '(') {
      const value = sum();
      expect(')');
      return value;
    }
    if (/^[\d.]/.test(token)) return Number(token);
    if (token.startsWith('?')) return names.equation(token.slice(1));
    if (token.startsWith('$')) return names.modifier(Number(token.slice(1)));
    if (tokens[at] === '(') return call(token);
    const value = names.constant(token);
    if (value === undefined) throw new FormulaError(`“${token}” in “${text}” is unknown`);
    return value;
  };
  const call = (name: string): number => {
    const known = FUNCTIONS[name];
    if (!known) throw new FormulaError(`“${name}” in “${text}” is unknown`);
    expect('(');
    const given: number[] = [];
    for (let i = 0; i < known.arguments; i++) {
      if (i) expect(',');
      given.push(sum());
    }
    expect(')');
    return known.apply(...given);
  };
  const value = sum();
  if (at < tokens.length) throw new FormulaError(`“${text}” goes on after its end`);
  return value;
}

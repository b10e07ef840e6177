/** XML and HTML escaping for text and attribute values; characters XML 1.0 forbids are left out. */
export const escape = (text: string): string =>
  text.replace(FORBIDDEN, '').replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

// eslint-disable-next-line no-control-regex -- XML 1.0, 2.2: these may not appear at all
const FORBIDDEN = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g;

/** A number for markup: at most `decimals` places, no exponent, no trailing zeros. */
export const num = (value: number, decimals = 3): string => String(+value.toFixed(decimals));

export type Attributes = Record<string, string | number | undefined>;
export const attrs = (a: Attributes): string =>
  Object.entries(a)
    .map(([k, v]) => (v === undefined ? '' : ` ${k}="${typeof v === 'number' ? num(v) : escape(v)}"`))
    .join('');

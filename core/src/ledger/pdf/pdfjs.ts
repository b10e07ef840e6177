/**
 * pdf.js's build for Node.js brings older machines what they lack, and on this one replaces parts of the language with slower
 * ones of its own: `JSON.stringify` takes ten times as long. What the language had is put back as soon as it is loaded, with
 * its worker, which does the same.
 */
const kept = { parse: JSON.parse, stringify: JSON.stringify };
const { push } = Array.prototype;
const { toString } = Function.prototype;

const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
// The worker leaves itself where pdf.js looks for it before loading one.
await import('pdfjs-dist/legacy/build/pdf.worker.mjs' as string);

Object.assign(JSON, kept);
for (const [prototype, name, value] of [
  [Array.prototype, 'push', push],
  [Function.prototype, 'toString', toString],
] as const)
  Object.defineProperty(prototype, name, { value, writable: true, configurable: true, enumerable: false });

export const { getDocument, OPS } = pdfjs;

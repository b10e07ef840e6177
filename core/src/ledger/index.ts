export * from './entry.ts';
export { subjectsOf } from './subjects.ts';
export type { SubjectInFolio } from './subjects.ts';
export { buildLedger, isValid } from './build.ts';
export { compareDocuments } from './compare.ts';
export type { Format } from './compare.ts';
export { expectDocument } from './expected.ts';
export type { ObservedDocument } from './observed.ts';

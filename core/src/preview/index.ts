export { weightsOf } from './weighPages.ts';
export { Weights } from './weights.ts';
export { readingPage } from './readingPage.ts';
export type { ReadingLook } from './readingPage.ts';

export type { Sample } from './sampleAssembly.ts';
export { samples } from './samples.ts';
export { largePresentation } from './largePresentation.ts';
export { writeOpenDocument } from './writeOpenDocument.ts';
export { asOpenDocument, writeSamples } from './writeSamples.ts';
export type { SampleFile } from './writeSamples.ts';
export { SAMPLE_TERMS } from './editions/terms.ts';

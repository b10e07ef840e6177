export type { Sample } from './sampleAssembly.ts';
export { samples } from './samples.ts';
export { writeSamples } from './writeSamples.ts';

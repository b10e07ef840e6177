export { InspectResult, ConvertResult, SamplesResult } from './results.ts';

export { InspectResult, ConvertResult, CorrectionsResult, SamplesResult } from './results.ts';

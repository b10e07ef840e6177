export { InspectResult, ConvertResult, CorrectionsResult, EditionResult, SamplesResult, SegmentsResult } from './results.ts';

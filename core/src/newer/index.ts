export { mapIds } from './mapIds.ts';
export { newerVersion } from './newerVersion.ts';
export type { Newer, NewerInput } from './newerVersion.ts';
export { Clashing, NewerReport, Unmatched } from './report.ts';

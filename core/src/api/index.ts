export * from './run.ts';
export * from './schemas.ts';
export * from '../preview/weights.ts';
export * from './collected.ts';
export * from './handover.ts';
export * from './languages.ts';
export * from './translationJobs.ts';

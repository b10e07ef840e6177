export * from './run.ts';
export * from './schemas.ts';

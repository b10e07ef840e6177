export * from './folio/index.ts';
export * from './edit/place.ts';
export { layOf } from './edit/facingPages.ts';
export type { PageLay } from './edit/facingPages.ts';
export * from './edit/edits.ts';
export * from './edit/apply.ts';
export * from './edit/log.ts';
export * from './structure/reading.ts';

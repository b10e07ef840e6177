export { drawingOf } from './drawing.ts';
export type { Kind } from './drawing.ts';
export { packOdf } from './odfPackage.ts';
export { wholeDocument } from './odfSources.ts';

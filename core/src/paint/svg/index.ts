export { GlyphOutlines } from './glyphs.ts';
export { paintItems, paintPaper, spreadPicture } from './paintSpread.ts';
export type { PaintedItem, SvgOptions } from './paintSpread.ts';
export { outlineOf } from '../boxPath.ts';

export { GlyphOutlines } from './glyphs.ts';
export { markupOf, paintItems, paintPaper, paintTop, spreadPicture } from './paintSpread.ts';
export type { PaintedItem, SvgOptions } from './paintSpread.ts';
export { outlineOf } from '../boxPath.ts';

import type { FontSet } from '../../compose/fontSet.ts';
import type { CharacterProperties } from '../../folio/styles.ts';

/** What stands in a line for a picture that lies over it: a space that is not broken at. */
export const GAP = '\u00A0';

/** How much wider than it is such a space has to be, in points, to be as wide as the picture. */
export function widenedBy(width: number, look: CharacterProperties, fonts: FontSet): number {
  const face = fonts.match(look);
  return width - (face.advanceOf(face.glyphFor(0xa0)) / face.unitsPerEm) * look.size;
}

import { multiply, translation } from '../../folio/geometry.ts';
import type { Matrix } from '../../folio/geometry.ts';

type Inset = [top: number, right: number, bottom: number, left: number];

export interface TextRoom {
  size: { width: number; height: number };
  transform: Matrix;
  inset: Inset;
  verticalAlign: 'top' | 'centre' | 'bottom' | 'justify';
}

/** Room that an unseen frame gets beside what it had: in its height, and in the width of lines that are not to be wrapped. */
const MORE_HEIGHT = 0.25;
const MORE_WIDTH = 0.12;
/** At least so much more height, in points: a line's descent. */
const LEAST = 6;

/**
 * Frames of OpenDocument are as high as their text was, and show what does not fit all the same; here a line too low is left
 * over. So that another font's slightly higher lines still stand where they did, a frame that nobody sees (no fill, no line)
 * becomes a little larger, to the sides that its text can grow to; one that is seen gives up its insets there instead.
 */
export function roomForText(room: TextRoom, seen: boolean, wraps: boolean, align: 'left' | 'centre' | 'right'): TextRoom {
  const [top, right, bottom, left] = room.inset;
  const { verticalAlign } = room;
  const up = verticalAlign === 'bottom' ? 1 : verticalAlign === 'centre' ? 0.5 : 0;
  const before = align === 'right' ? 1 : align === 'centre' ? 0.5 : 0;
  if (seen) {
    const inset: Inset = [up > 0 ? 0 : top, right, up < 1 ? 0 : bottom, left];
    if (verticalAlign === 'centre') {
      // Both give up the same, so that the middle stays where it is.
      const given = Math.min(top, bottom);
      [inset[0], inset[2]] = [top - given, bottom - given];
    }
    if (!wraps) {
      const given = before === 0.5 ? Math.min(left, right) : before ? left : right;
      if (before > 0) inset[3] -= given;
      if (before < 1) inset[1] -= given;
    }
    return { ...room, inset };
  }
  const { width, height } = room.size;
  const higher = Math.max(LEAST, height * MORE_HEIGHT);
  const wider = wraps ? 0 : width * MORE_WIDTH + LEAST;
  return {
    ...room,
    size: { width: width + wider, height: height + higher },
    transform: multiply(room.transform, translation(-wider * before, -higher * up)),
  };
}

import type { Effects } from '../../folio/appearance.ts';

/** What a format of placed things can say of them. */
export interface PlacedFormat {
  /** Whether it cuts a picture by an outline, or by round corners. */
  clips: boolean;
  /** Whether it has an effect of its own. */
  has(effect: keyof Effects, effects: Effects): boolean;
}

/** DrawingML (ISO/IEC 29500-1, 20.1.8) has all of them. */
export const DRAWINGML: PlacedFormat = { clips: true, has: () => true };

/** OpenDocument (part 3, 20.161) has shadows with hard edges. */
export const OPEN_DOCUMENT: PlacedFormat = {
  clips: false,
  has: (effect, { outerShadow }) => effect === 'outerShadow' && (outerShadow?.blur ?? 0) === 0,
};

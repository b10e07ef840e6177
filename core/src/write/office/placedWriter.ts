import type { FixedPageWriter } from '../pages/planFixedPage.ts';

/** What office files that put everything in its place have in common: colours of RGB, shadows of their own, links by a press. */
export const PLACED_WRITER: Omit<FixedPageWriter, 'motion'> = {
  keepsColourSpaces: false,
  hasEffects: true,
  groupsMustBeReadTogether: false,
  linksCues: true,
};

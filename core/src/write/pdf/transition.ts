import type { Change, Opening, Transition } from '../../folio/motion.ts';

/** Styles by their names in the file (ISO 32000-1, table 162), with the entries each may have. */
const STYLES: Record<Transition['style'], { name: string; axis?: true; motion?: true; directions?: readonly number[] }> = {
  split: { name: 'Split', axis: true, motion: true },
  blinds: { name: 'Blinds', axis: true },
  box: { name: 'Box', motion: true },
  wipe: { name: 'Wipe', directions: [0, 90, 180, 270] },
  dissolve: { name: 'Dissolve' },
  glitter: { name: 'Glitter', directions: [0, 270, 315] },
  fly: { name: 'Fly', motion: true, directions: [0, 270] },
  push: { name: 'Push', directions: [0, 270] },
  cover: { name: 'Cover', directions: [0, 270] },
  uncover: { name: 'Uncover', directions: [0, 270] },
  fade: { name: 'Fade' },
};

const around = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** Whether the file can say the direction of a transition; others become the nearest that it can. */
export const hasDirection = ({ style, direction }: Transition): boolean => STYLES[style].directions?.includes(around(direction)) ?? true;

/** The transition dictionary of a page (12.4.4.1). */
export function transitionDictionary(t: Transition): Record<string, unknown> {
  const { name, axis, motion, directions } = STYLES[t.style];
  const from = (d: number): number => Math.min(Math.abs(d - around(t.direction)), 360 - Math.abs(d - around(t.direction)));
  return {
    Type: 'Trans',
    S: name,
    D: t.seconds,
    ...(axis && { Dm: t.axis === 'vertical' ? 'V' : 'H' }),
    ...(motion && { M: t.motion === 'outward' ? 'O' : 'I' }),
    ...(directions && { Di: [...directions].sort((a, b) => from(a) - from(b))[0] }),
  };
}

/** How the page of a card comes where cards are pages: all but the card stays the same, so nothing but a fade looks like a turn. */
export const transitionOfCard = ({ kind, seconds }: Change): Transition | null =>
  kind === 'cut' ? null : { style: 'fade', seconds, direction: 0 };

/** How large its first page is shown then (12.3.2.2, table 151); null where that is left to the reader. */
export function openingView({ zoom }: Opening): unknown[] | null {
  if (zoom === undefined) return null;
  if (zoom === 'page') return ['Fit'];
  return zoom === 'width' ? ['FitH', null] : ['XYZ', null, null, zoom];
}

/** How the file is opened (7.7.2, table 28; 12.2, table 150). */
export function openingEntries({ fullScreen, view, showBookmarks }: Opening, hasMorePages: boolean): Record<string, unknown> {
  const bare = showBookmarks ? 'UseOutlines' : 'UseNone';
  return {
    PageMode: fullScreen ? 'FullScreen' : bare,
    // Pages of cards come in between: facing pages would not face one another.
    PageLayout: view === 'spread' && !hasMorePages ? 'TwoPageRight' : 'SinglePage',
    ...(fullScreen && { ViewerPreferences: { NonFullScreenPageMode: bare } }),
  };
}

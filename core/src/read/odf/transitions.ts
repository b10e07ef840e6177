import type { z } from 'zod';
import type { Transition } from '../../folio/motion.ts';
import { secondsOf } from './lengths.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { findInside } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;
type Made = z.infer<typeof Transition>;

/** How long the three speeds take, in seconds (common practice; 19.404 presentation:transition-speed gives no figures). */
const SPEEDS: Record<string, number> = { slow: 2, medium: 1, fast: 0.5 };

/** Directions in degrees, as ISO 32000-1 table 162 counts them: 0 from left to right, 90 upwards, 270 downwards. */
const FROM: Record<string, number> = {
  left: 0,
  right: 180,
  top: 270,
  bottom: 90,
  upperleft: 315,
  upperright: 225,
  lowerleft: 45,
  lowerright: 135,
};

/** SMIL 3.0 transition types (12.4) that have a style of ours. */
const SMIL: Record<string, (sub: string, reverse: boolean) => Omit<Made, 'seconds'>> = {
  barWipe: (sub, back) => ({ style: 'wipe', direction: turn(sub === 'topToBottom' ? 270 : 0, back) }),
  barnDoorWipe: (sub, back) => ({
    style: 'split',
    direction: 0,
    axis: sub === 'horizontal' ? 'horizontal' : 'vertical',
    motion: back ? 'inward' : 'outward',
  }),
  irisWipe: (_, back) => ({ style: 'box', direction: 0, motion: back ? 'inward' : 'outward' }),
  blindsWipe: (sub) => ({ style: 'blinds', direction: 0, axis: sub === 'horizontal' ? 'horizontal' : 'vertical' }),
  pushWipe: (sub, back) => ({ style: 'push', direction: turn(fromSide(sub), back) }),
  slideWipe: (sub, back) => ({ style: back ? 'uncover' : 'cover', direction: fromSide(sub) }),
  fade: () => ({ style: 'fade', direction: 0 }),
  dissolve: () => ({ style: 'dissolve', direction: 0 }),
  checkerBoardWipe: () => ({ style: 'dissolve', direction: 0 }),
  randomBarWipe: (sub) => ({ style: 'blinds', direction: 0, axis: sub === 'horizontal' ? 'horizontal' : 'vertical' }),
};

const turn = (degrees: number, back: boolean): number => (back ? (degrees + 180) % 360 : degrees);
const fromSide = (sub: string): number => FROM[/^from(\w+)$/.exec(sub)?.[1]?.toLowerCase() ?? 'left'] ?? 0;

export interface PageMotion {
  transition?: Made;
  /** Seconds after which the next page comes by itself. */
  advanceAfter?: number;
  /** A transition that has no counterpart. */
  unknown?: string;
}

/** How a page comes and when it goes, from its `style:drawing-page-properties` (19.391–19.405). */
export function motionOf(a: Attributes): PageMotion {
  const out: PageMotion = {};
  if (a['presentation:transition-type'] === 'automatic') {
    const seconds = secondsOf(a['presentation:duration']);
    if (seconds !== undefined) out.advanceAfter = seconds;
  }
  const seconds = secondsOf(a['presentation:transition-duration']) ?? SPEEDS[a['presentation:transition-speed'] ?? 'medium'] ?? 1;
  const smil = a['smil:type'];
  if (smil) {
    const made = SMIL[smil]?.(a['smil:subtype'] ?? '', a['smil:direction'] === 'reverse');
    if (made) out.transition = { seconds, ...made };
    else out.unknown = smil;
    return out;
  }
  const style = a['presentation:transition-style'];
  if (!style || style === 'none') return out;
  const made = older(style);
  if (made) out.transition = { seconds, ...made };
  else out.unknown = style;
  return out;
}

/** The styles of 19.405, presentation:transition-style. */
function older(style: string): Omit<Made, 'seconds'> | null {
  const from = FROM[/-from-(\w+)$/.exec(style)?.[1] ?? ''] ?? FROM[/-(?:from-)?((?:upper|lower)(?:left|right))$/.exec(style)?.[1] ?? ''];
  if (/^fade-(from-(left|right|top|bottom)|from-(upper|lower)\w+)$/.test(style)) return { style: 'wipe', direction: from ?? 0 };
  if (style === 'fade-to-center' || style === 'fade-from-center')
    return { style: 'box', direction: 0, motion: style === 'fade-to-center' ? 'inward' : 'outward' };
  if (/^move-from-/.test(style)) return { style: 'cover', direction: from ?? 0 };
  if (/^uncover-to-/.test(style)) return { style: 'uncover', direction: turn(FROM[style.slice('uncover-to-'.length)] ?? 0, true) };
  if (/^(vertical|horizontal)-stripes$/.test(style))
    return { style: 'blinds', direction: 0, axis: style.startsWith('horizontal') ? 'horizontal' : 'vertical' };
  if (/^(open|close)-(vertical|horizontal)$/.test(style))
    return {
      style: 'split',
      direction: 0,
      axis: style.endsWith('horizontal') ? 'horizontal' : 'vertical',
      motion: style.startsWith('open') ? 'outward' : 'inward',
    };
  if (style === 'dissolve' || style === 'random') return { style: 'dissolve', direction: 0 };
  return null;
}

/** Lists what sounds or hides on a page and has no counterpart. */
export function listUnseen(page: XmlElement, own: Attributes, notTaken: NotTakenList): void {
  if (own['presentation:visibility'] === 'hidden') notTaken.add('changed', 'Hidden page', 'it is shown like the others');
  if (findInside(page, 'presentation:sound')) notTaken.add('leftOut', 'Sound at a change of pages', 'pages change silently');
}

import type { Transition } from '../../folio/motion.ts';
import type { Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';

type Side = 'l' | 'r' | 'u' | 'd';

/** Where something moves to, by degrees: 0 to the right, 90 upwards, counted against the clock (ISO 32000-1, table 162). */
const SIDES: readonly { degrees: number; side: Side }[] = [
  { degrees: 0, side: 'r' },
  { degrees: 90, side: 'u' },
  { degrees: 180, side: 'l' },
  { degrees: 270, side: 'd' },
];
const around = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** The direction of four that is nearest. */
function sideOf(direction: number): Side {
  const from = (d: number): number => Math.min(Math.abs(d - around(direction)), 360 - Math.abs(d - around(direction)));
  return [...SIDES].sort((a, b) => from(a.degrees) - from(b.degrees))[0]!.side;
}

/** Styles that go somewhere; the others have no direction, or an axis. */
const DIRECTED = new Set<Transition['style']>(['wipe', 'glitter', 'fly', 'push', 'cover', 'uncover']);

/** Whether the format says a style as it is: it has none of glittering. */
export const isNearest = ({ style }: Transition): boolean => style === 'glitter';
/** Whether a direction is one of the format’s four. */
export const hasDirection = ({ style, direction }: Transition): boolean => !DIRECTED.has(style) || around(direction) % 90 === 0;

/** Speeds as the standard has them (ISO/IEC 29500-1, 19.7.39): common practice reads them as three quarters, a half and a quarter of a second. */
const speedOf = (seconds: number): 'slow' | 'med' | 'fast' => (seconds >= 0.75 ? 'slow' : seconds >= 0.5 ? 'med' : 'fast');

/** How a slide comes, and when it goes on by itself (19.3.1.50); null where it just stands there until somebody goes on. */
export function transitionXml(transition: Transition | undefined, advanceAfter: number | undefined): Xml | null {
  if (!transition && advanceAfter === undefined) return null;
  return el(
    'p:transition',
    {
      spd: transition ? speedOf(transition.seconds) : undefined,
      advTm: advanceAfter === undefined ? undefined : Math.round(advanceAfter * 1000),
    },
    transition && effect(transition),
  );
}

function effect(t: Transition): Xml {
  const dir = sideOf(t.direction);
  const orient = t.axis === 'vertical' ? 'vert' : 'horz';
  const inOrOut = t.motion === 'outward' ? 'out' : 'in';
  switch (t.style) {
    case 'split':
      return el('p:split', { orient, dir: inOrOut });
    case 'blinds':
      return el('p:blinds', { dir: orient });
    case 'box':
      return el('p:zoom', { dir: inOrOut });
    case 'wipe':
      return el('p:wipe', { dir });
    case 'dissolve':
      return el('p:dissolve');
    case 'glitter':
      return el('p:strips', { dir: dir === 'r' || dir === 'd' ? 'rd' : 'lu' });
    case 'fly':
    case 'cover':
      return el('p:cover', { dir });
    case 'push':
      return el('p:push', { dir });
    case 'uncover':
      return el('p:pull', { dir });
    case 'fade':
      return el('p:fade');
  }
}

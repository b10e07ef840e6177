import type { Stroke } from '../../../folio/appearance.ts';
import { emu } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';
import { fillXml } from './paint.ts';
import type { Ground } from './paint.ts';

const CAPS: Record<Stroke['cap'], string> = { butt: 'flat', round: 'rnd', square: 'sq' };
/** A bar is no end of the format; the line ends bare. */
const ENDS: Record<Stroke['startMarker'], string | null> = { none: null, arrow: 'triangle', circle: 'oval', bar: null };

/** A line around a shape (ISO/IEC 29500-1, 20.1.2.2.24): its paint, dashes in thousandths of its weight, joins, ends. */
export function lineXml(stroke: Stroke | null, ground: Ground): Xml {
  if (!stroke || stroke.weight <= 0 || stroke.paint.type === 'none') return el('a:ln', {}, el('a:noFill'));
  const dashes = stroke.dashes.length % 2 ? [...stroke.dashes, ...stroke.dashes] : stroke.dashes;
  const share = (points: number): number => Math.round((points / stroke.weight) * 100_000);
  const pairs = Array.from({ length: dashes.length / 2 }, (_, i) =>
    el('a:ds', { d: share(dashes[2 * i]!), sp: share(dashes[2 * i + 1]!) }),
  );
  const join =
    stroke.join === 'miter'
      ? el('a:miter', { lim: Math.round(stroke.miterLimit * 100_000) })
      : el(stroke.join === 'round' ? 'a:round' : 'a:bevel');
  const end = (name: 'a:headEnd' | 'a:tailEnd', marker: Stroke['startMarker']): Xml | null =>
    ENDS[marker] ? el(name, { type: ENDS[marker], w: 'med', len: 'med' }) : null;
  return el(
    'a:ln',
    { w: emu(stroke.weight), cap: CAPS[stroke.cap] },
    fillXml(stroke.paint, ground),
    dashes.some((d) => d > 0) ? el('a:custDash', {}, pairs) : el('a:prstDash', { val: 'solid' }),
    join,
    end('a:headEnd', stroke.startMarker),
    end('a:tailEnd', stroke.endMarker),
  );
}

import type { Effects } from '../../../folio/appearance.ts';
import type { Swatch } from '../../../folio/colour.ts';
import { angle60000, emu } from '../lengths.ts';
import type { Xml } from '../../assets/xml.ts';
import { el } from '../../assets/xml.ts';
import { solidColourXml } from './paint.ts';

/** Shadows, glows and soft edges as the format has them (ISO/IEC 29500-1, 20.1.8.25, in the order of CT_EffectList); null where there are none. */
export function effectsXml({ glow, innerShadow, outerShadow, feather }: Effects, swatches: Record<string, Swatch>): Xml | null {
  const shadow = (name: string, s: NonNullable<Effects['outerShadow']>): Xml =>
    el(
      name,
      {
        blurRad: emu(s.blur),
        dist: emu(Math.hypot(s.dx, s.dy)),
        dir: angle60000((Math.atan2(s.dy, s.dx) * 180) / Math.PI),
        ...(name === 'a:outerShdw' && { algn: 'ctr', rotWithShape: 0 }),
      },
      solidColourXml(s.paint, swatches, s.opacity),
    );
  if (!glow && !innerShadow && !outerShadow && !(feather && feather.width > 0)) return null;
  return el(
    'a:effectLst',
    {},
    glow && el('a:glow', { rad: emu(glow.blur) }, solidColourXml(glow.paint, swatches, glow.opacity)),
    innerShadow && shadow('a:innerShdw', innerShadow),
    outerShadow && shadow('a:outerShdw', outerShadow),
    feather && feather.width > 0 && el('a:softEdge', { rad: emu(feather.width) }),
  );
}

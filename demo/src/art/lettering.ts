import { FontFace } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';

/** Letters as outlines for drawings, so that they look the same on every machine, whatever fonts it has. */
export type Lettering = (
  text: string,
  x: number,
  y: number,
  size: number,
  more?: { anchor?: 'start' | 'middle' | 'end'; fill?: string },
) => string;

/** Lettering in the sans serif that ships. */
export async function lettering(): Promise<Lettering> {
  const source = await shippedFontSource();
  const entry = source.list().find((f) => f.family === 'Work Sans' && f.weight === 600 && f.style === 'normal')!;
  const face = new FontFace(entry.key, entry.family, entry.weight, entry.style, await source.bytes(entry.key));
  return (text, x, y, size, { anchor = 'middle', fill = '#22302C' } = {}) => {
    const glyphs = face.shape(text, 0, text.length, { features: {}, language: 'en', script: 'Latn', direction: 'ltr' });
    const scale = size / face.unitsPerEm;
    const width = glyphs.width * scale;
    let pen = x - (anchor === 'middle' ? width / 2 : anchor === 'end' ? width : 0);
    let out = '';
    for (let i = 0; i < glyphs.count; i++) {
      const d = face.outline(glyphs.gid(i));
      if (d)
        out += `<path d="${d}" fill="${fill}" transform="translate(${pen.toFixed(1)} ${y.toFixed(1)}) scale(${scale.toFixed(5)} ${(-scale).toFixed(5)})"/>`;
      pen += glyphs.advance(i) * scale;
    }
    return out;
  };
}

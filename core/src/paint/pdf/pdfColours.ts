import type { Colour, Paint, SolidPaint, Swatch } from '../../folio/colour.ts';
import { solidColour, toRgb } from '../../folio/colour.ts';
import type { Matrix } from '../../folio/geometry.ts';
import { n } from './pdfkitParts.ts';
import type { Doc } from './pdfkitParts.ts';

/** Colours of a PDF being drawn, each in its own space; spot inks and gradients among them. */
export class PdfColours {
  constructor(
    private readonly doc: Doc,
    private readonly swatches: Record<string, Swatch>,
  ) {}

  /** Sets a colour or a gradient for filling, or for strokes. */
  set(paint: Exclude<Paint, { type: 'none' }>, stroking: boolean): void {
    if (paint.type !== 'gradient') return this.setSolid(paint, stroking);
    const { kind, stops, transform } = paint.gradient;
    const gradient = kind === 'linear' ? this.doc.linearGradient(0, 0, 1, 0) : this.doc.radialGradient(0, 0, 0, 0, 0, 1);
    (gradient as unknown as { setTransform(...m: Matrix): void }).setTransform(...transform);
    for (const stop of stops) {
      const { colour, tint } = solidColour(stop.paint, this.swatches);
      const { r, g, b } = toRgb(colour, tint);
      gradient.stop(stop.offset, [r, g, b].map((v) => Math.round(v * 255)) as unknown as string, stop.opacity);
    }
    if (stroking) this.doc.strokeColor(gradient);
    else this.doc.fillColor(gradient);
  }

  /** Sets a colour in its own space; spot inks as Separation with their tint (ISO 32000-1, 8.6.6.4). */
  setSolid(paint: SolidPaint, stroking: boolean): void {
    const { colour, tint } = solidColour(paint, this.swatches);
    const tinted = (v: number): number => 1 - (1 - v) * tint;
    switch (colour.space) {
      case 'rgb':
        return this.doc.addContent(`${n(tinted(colour.r))} ${n(tinted(colour.g))} ${n(tinted(colour.b))} ${stroking ? 'RG' : 'rg'}`);
      case 'grey':
        return this.doc.addContent(`${n(tinted(colour.value))} ${stroking ? 'G' : 'g'}`);
      case 'cmyk':
        return this.doc.addContent(`${[colour.c, colour.m, colour.y, colour.k].map((v) => n(v * tint)).join(' ')} ${stroking ? 'K' : 'k'}`);
      case 'spot': {
        const spot = this.spot(colour);
        this.doc.page.colorSpaces[spot.id] = spot.ref;
        return this.doc.addContent(`/${spot.id} ${stroking ? 'CS' : 'cs'} ${n(tint)} ${stroking ? 'SCN' : 'scn'}`);
      }
    }
  }

  private spot(colour: Extract<Colour, { space: 'spot' }>): { id: string; ref: unknown } {
    if (!this.doc.spotColors[colour.ink]) {
      const a = colour.alternate;
      const cmyk = a.space === 'cmyk' ? [a.c, a.m, a.y, a.k] : [...(({ r, g, b }) => [1 - r, 1 - g, 1 - b])(toRgb(a)), 0];
      this.doc.addSpotColor(colour.ink, ...(cmyk.map((v) => v * 100) as [number, number, number, number]));
    }
    return this.doc.spotColors[colour.ink]!;
  }
}

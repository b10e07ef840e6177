import type { FontFace } from '../../compose/fontFace.ts';
import type { GlyphRun } from '../../compose/marks.ts';
import { SOFT_HYPHEN } from '../../folio/text.ts';
import type { PdfColours } from './pdfColours.ts';
import { n } from './pdfkitParts.ts';
import type { Doc, EmbeddedFont } from './pdfkitParts.ts';

/** Letters of a PDF being drawn, as live text in embedded fonts or as shapes. */
export class PdfLetters {
  private readonly fonts = new Map<FontFace, EmbeddedFont>();
  private readonly hyphens = new Map<EmbeddedFont, number>();

  constructor(
    private readonly doc: Doc,
    private readonly colours: PdfColours,
  ) {}

  private font(face: FontFace): EmbeddedFont {
    let font = this.fonts.get(face);
    if (!font) {
      this.doc.font(Buffer.from(face.bytes));
      this.fonts.set(face, (font = this.doc._font));
    }
    return font;
  }

  /**
   * Shows a run of glyphs at a baseline, each where the typesetter put it: differences from the font's
   * own advances become adjustments of TJ (ISO 32000-1, 9.4.3). A space at the end of a line is added
   * so that lines of a paragraph do not run together when copied.
   */
  show(run: GlyphRun, x: number, baseline: number, spaceAfter: boolean): void {
    const font = this.font(run.font);
    this.doc.page.fonts[font.id] ??= font.ref();
    this.colours.setSolid(run.fill, false);
    const parts: string[] = [];
    let pen = 0;
    let hexes = '';
    const flush = (): void => {
      if (hexes) parts.push(`<${hexes}>`);
      hexes = '';
    };
    const add = (gid: number, text: string, slot = font.subset.includeGlyph(gid)): void => {
      font.widths[slot] ??= font.font.getGlyph(gid).advanceWidth * font.scale;
      font.unicode[slot] ??= [...text].map((c) => c.codePointAt(0)!);
      hexes += slot.toString(16).padStart(4, '0');
      pen += (font.widths[slot] / 1000) * run.size;
    };
    // The hyphen of a divided word is a glyph of its own in the font, read as a soft hyphen: copying joins the word.
    const showHyphen = (gid: number): void => {
      let slot = this.hyphens.get(font);
      if (slot === undefined) {
        slot = font.subset.glyphs.length;
        font.subset.glyphs.push(gid);
        this.hyphens.set(font, slot);
      }
      add(gid, SOFT_HYPHEN, slot);
    };
    let raised = 0;
    // Letters widened or narrowed along the line: by the text matrix, so that all else is told unscaled.
    const sx = run.horizontalScale;
    const outlined = this.textStroke(run);
    const begin = `BT /${font.id} ${n(run.size)} Tf ${outlined ? '2 Tr ' : ''}${n(sx, 6)} 0 0 -1 ${n(x)} ${n(baseline + run.shift)} Tm`;
    for (const g of run.glyphs) {
      const at = (g.x + g.dx) / sx;
      if (Math.abs(g.dy - raised) > 1e-4) {
        flush();
        parts.push(`] TJ ${n(-g.dy)} Ts [`);
        raised = g.dy;
      }
      if (Math.abs(at - pen) > 1e-4) {
        flush();
        parts.push(n(((pen - at) * 1000) / run.size, 3));
        pen = at;
      }
      if (g.text === SOFT_HYPHEN) showHyphen(g.gid);
      else add(g.gid, g.text);
    }
    const space = spaceAfter ? run.font.glyphFor(0x20) : 0;
    if (space) add(space, ' ');
    flush();
    this.doc.addContent(`${begin} [${parts.join(' ')}] TJ${raised ? ' 0 Ts' : ''}${outlined ? ' 0 Tr' : ''} ET`);
  }

  /** Sets the stroke of letters that have one; text rendering mode 2 fills, then strokes (ISO 32000-1, 9.3.6). */
  private textStroke(run: GlyphRun): boolean {
    const { stroke } = run.look;
    if (!stroke || stroke.weight <= 0 || stroke.paint.type === 'none' || stroke.paint.type === 'gradient') return false;
    this.colours.setSolid(stroke.paint, true);
    this.doc.lineWidth(stroke.weight).lineJoin(stroke.join);
    return true;
  }

  /** Letters as shapes, for a font that may not be embedded; outlines come in font units, y up. */
  outlines(run: GlyphRun, x: number, baseline: number): void {
    const scale = run.size / run.font.unitsPerEm;
    this.colours.setSolid(run.fill, false);
    for (const g of run.glyphs) {
      const d = run.font.outline(g.gid);
      if (!d) continue;
      this.doc.save().transform(scale * run.horizontalScale, 0, 0, -scale, x + g.x + g.dx, baseline + run.shift + g.dy);
      this.doc.path(d);
      this.doc.addContent('f');
      this.doc.restore();
    }
  }
}

import * as hb from 'harfbuzzjs';
import { checkTables, FontError, tableOf, u16 } from './fontTables.ts';
import { ShapedRow } from './shapedRow.ts';

/** How a stretch is to be shaped. */
export interface Shaping {
  features: Record<string, number>;
  language: string;
  script: string;
  direction: 'ltr' | 'rtl';
}

/** Code points whose glyphs are looked up in a table: those of most texts in alphabets. */
const COMMON = 0x2100;
/** Texts no longer than this are remembered, and how many of them for one set of features. */
const BRIEF = 8;
const MOST_BRIEF = 20_000;

/** Characters around a stretch that decide how its ends join: HarfBuzz looks at five on either side (hb_buffer_t, CONTEXT_LENGTH). */
const CONTEXT = 16;

/**
 * Bytes of fonts that the shaper may hold at once. Its memory ends at 2 GiB, where it fails without saying so and damages itself;
 * what it keeps beside a font is less than the font.
 */
const SHAPER_ROOM = 900 * 2 ** 20;
let held = 0;
const released = new FinalizationRegistry<number>((bytes) => (held -= bytes));

interface Brief extends Omit<Shaping, 'features'> {
  row: ShapedRow;
}

const shaperFeatures = new WeakMap<object, hb.Feature[]>();

/** The shaper's form of a set of features, made once for each. */
function featuresFor(features: Record<string, number>): hb.Feature[] {
  let made = shaperFeatures.get(features);
  if (!made) shaperFeatures.set(features, (made = Object.entries(features).map(([tag, value]) => new hb.Feature(tag, value))));
  return made;
}

/** Widths of the classes 1 to 9 in per cent (OpenType 1.9, OS/2 usWidthClass). */
const WIDTH_CLASSES = [100, 50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200];

/** From this weight on a font is a bold one (CSS Fonts 4, 2.2.2: common names of weights). */
const BOLD_FROM = 600;

const i16 = (b: Uint8Array, at: number): number => (u16(b, at) << 16) >> 16;

/**
 * One font file, ready for shaping by HarfBuzz. Metrics are in units of the em square and follow the
 * choice browsers make, so that a line box on the web sits where the typesetter put it: `hhea`,
 * unless OS/2 asks for its typographic values (OpenType 1.9, OS/2 fsSelection bit 7).
 */
export class FontFace {
  readonly unitsPerEm: number;
  readonly ascent: number;
  readonly descent: number;
  readonly capHeight: number;
  readonly xHeight: number;
  readonly underline: { offset: number; thickness: number };
  /** OS/2 fsType allows embedding (OpenType: 2 is "restricted licence", 0x0200 bitmap only). */
  readonly mayEmbed: boolean;
  /** The same for a document that is worked on (OpenType 1.9, fsType: 0 is installable, 8 editable embedding). */
  readonly mayEmbedForEditing: boolean;
  /** fsType 0x0100 forbids subsetting. */
  readonly maySubset: boolean;
  /** Width in per cent of the normal one (OpenType, OS/2 usWidthClass). */
  readonly stretch: number;
  readonly fullName: string;
  readonly postscriptName: string;
  /** How programs that know families of four call it: a family, and whether it is its bold and its italic (OpenType 1.9, name ids 1 and 2). */
  readonly familyOfFour: { family: string; bold: boolean; italic: boolean };
  private readonly font: hb.Font;
  private readonly buffer = new hb.Buffer();
  private readonly paths = new Map<number, string>();
  private readonly covered = new Int32Array(COMMON).fill(-1);
  private readonly coveredBeyond = new Map<number, number>();
  private readonly brief = new WeakMap<object, Map<string, Brief[]>>();
  private readonly advances = new Map<number, number>();
  private readonly features = new Map<string, boolean>();

  /** Reads a TrueType or OpenType font; throws a FontError on anything else. */
  constructor(
    readonly key: string,
    readonly family: string,
    readonly weight: number,
    readonly style: 'normal' | 'italic',
    readonly bytes: Uint8Array,
  ) {
    checkTables(bytes);
    if (held + bytes.length > SHAPER_ROOM) throw new FontError('There are more fonts in use at once than there is room for.');
    held += bytes.length;
    released.register(this, bytes.length);
    const face = new hb.Face(new hb.Blob(bytes), 0);
    this.font = new hb.Font(face);
    this.unitsPerEm = face.upem;
    // Not asked of the shaper: each table that it gives keeps the whole font in its memory for good (harfbuzzjs 1.6).
    const table = (tag: string): Uint8Array | undefined => tableOf(bytes, tag);
    const os2 = table('OS/2');
    const hhea = table('hhea');
    const post = table('post');
    if (!hhea || hhea.length < 8 || !face.upem || !table('cmap')) throw new FontError('The font lacks tables that setting text needs.');
    const useTypo = os2 && os2.length >= 72 && (u16(os2, 62) & 0x80) !== 0;
    this.ascent = useTypo ? i16(os2, 68) : i16(hhea, 4);
    this.descent = -(useTypo ? i16(os2, 70) : i16(hhea, 6));
    this.xHeight = os2 && os2.length >= 88 && i16(os2, 86) > 0 ? i16(os2, 86) : Math.round(this.unitsPerEm * 0.5);
    this.capHeight = os2 && os2.length >= 90 && i16(os2, 88) > 0 ? i16(os2, 88) : Math.round(this.unitsPerEm * 0.7);
    this.underline =
      post && post.length >= 12
        ? { offset: i16(post, 8), thickness: i16(post, 10) }
        : { offset: -0.1 * this.unitsPerEm, thickness: 0.05 * this.unitsPerEm };
    const fsType = os2 && os2.length >= 10 ? u16(os2, 8) : 0;
    this.mayEmbed = (fsType & 0x000f) !== 2 && (fsType & 0x0200) === 0;
    this.mayEmbedForEditing = this.mayEmbed && ((fsType & 0x000f) === 0 || (fsType & 0x0008) !== 0);
    this.maySubset = (fsType & 0x0100) === 0;
    this.stretch = WIDTH_CLASSES[os2 && os2.length >= 8 ? u16(os2, 6) : 5] ?? 100;
    this.fullName = face.getName(4, 'en') || family;
    this.postscriptName = face.getName(6, 'en') || this.fullName.replace(/ /g, '');
    const kind = face.getName(2, 'en');
    this.familyOfFour = {
      family: face.getName(1, 'en') || family,
      // A font without names is told by what the document says of it.
      bold: kind ? /bold/i.test(kind) : weight >= BOLD_FROM,
      italic: kind ? /italic|oblique/i.test(kind) : style === 'italic',
    };
  }

  /** The glyph for a code point, or 0. */
  glyphFor(codePoint: number): number {
    if (codePoint < COMMON) {
      const gid = this.covered[codePoint]!;
      return gid >= 0 ? gid : (this.covered[codePoint] = this.font.nominalGlyph(codePoint) ?? 0);
    }
    let gid = this.coveredBeyond.get(codePoint);
    if (gid === undefined) this.coveredBeyond.set(codePoint, (gid = this.font.nominalGlyph(codePoint) ?? 0));
    return gid;
  }

  private asciiKnown: boolean | undefined;
  /** Whether it has all printable characters of ASCII. */
  get hasAscii(): boolean {
    if (this.asciiKnown === undefined) {
      this.asciiKnown = true;
      for (let c = 0x20; c < 0x7f && this.asciiKnown; c++) this.asciiKnown = this.glyphFor(c) !== 0;
    }
    return this.asciiKnown;
  }

  /** A glyph's own advance in font units. */
  advanceOf(gid: number): number {
    let advance = this.advances.get(gid);
    if (advance === undefined) this.advances.set(gid, (advance = this.font.glyphHAdvance(gid)));
    return advance;
  }

  /** Whether a feature makes another glyph of a letter: the font has it. */
  changesWith(feature: string, letter: string, language: string): boolean {
    let changes = this.features.get(feature);
    if (changes === undefined) {
      const glyph = (on: number): number | undefined =>
        this.shape(letter, 0, letter.length, { features: { [feature]: on }, language, script: 'Latn', direction: 'ltr' }).gid(0);
      this.features.set(feature, (changes = glyph(0) !== glyph(1)));
    }
    return changes;
  }

  /** Shapes `text[start..end)`; the shaper sees what stands around it. */
  shape(text: string, start: number, end: number, { features, language, script, direction }: Shaping): ShapedRow {
    const { buffer } = this;
    // The shaper copies all that it is given: of a long text it gets no more around a stretch than it looks at.
    const from = Math.max(0, start - CONTEXT);
    const to = Math.min(text.length, end + CONTEXT);
    buffer.clearContents();
    buffer.addText(from > 0 || to < text.length ? text.slice(from, to) : text, start - from, end - start);
    buffer.setDirection(direction === 'rtl' ? hb.Direction.RTL : hb.Direction.LTR);
    buffer.setScript(script);
    buffer.setLanguage(language);
    hb.shape(this.font, buffer, featuresFor(features));
    // Asked for apart: `getGlyphInfosAndPositions` defines hidden properties on every glyph and takes three times the shaping.
    return ShapedRow.from(buffer.getGlyphInfos(), buffer.getGlyphPositions(), hb.GlyphFlag.UNSAFE_TO_BREAK, from);
  }

  /**
   * Shapes a whole text that is short enough to come again, such as the letters beside a break: it is remembered. Its
   * row must not be changed.
   */
  shapeBrief(text: string, shaping: Shaping): ShapedRow {
    if (text.length > BRIEF) return this.shape(text, 0, text.length, shaping);
    let known = this.brief.get(shaping.features);
    if (!known) this.brief.set(shaping.features, (known = new Map<string, Brief[]>()));
    const same = known.get(text);
    for (const b of same ?? [])
      if (b.language === shaping.language && b.script === shaping.script && b.direction === shaping.direction) return b.row;
    if (known.size >= MOST_BRIEF) known.clear();
    const { language, script, direction } = shaping;
    const made: Brief = { language, script, direction, row: this.shape(text, 0, text.length, shaping).alone() };
    if (same) same.push(made);
    else known.set(text, [made]);
    return made.row;
  }

  /** A glyph's outline as SVG path data in font units, y up. */
  outline(gid: number): string {
    let path = this.paths.get(gid);
    if (path === undefined) this.paths.set(gid, (path = this.font.glyphToPath(gid)));
    return path;
  }
}

import type { GlyphRun } from '../../compose/marks.ts';
import type { FontFace } from '../../compose/fontFace.ts';
import type { Swatch } from '../../folio/colour.ts';
import { solidHex } from '../../folio/colour.ts';
import { num } from '../svg/markup.ts';
import { px } from './metrics.ts';

/** Looks of text as CSS classes, each made once; and the fonts they use. */
export class LookSheet {
  private readonly classes = new Map<string, string>();
  private readonly families = new Map<FontFace, string>();
  readonly characters = new Map<FontFace, Set<number>>();

  /** `draws`: letters are drawn, whatever their font; else only those whose font may not be embedded. */
  constructor(
    private readonly swatches: Record<string, Swatch>,
    private readonly draws = false,
  ) {}

  /** Whether a font's letters are drawn over their live but unseen text. */
  isDrawn(font: FontFace): boolean {
    return this.draws || !font.mayEmbed;
  }

  /** The CSS family name of a face: every face is a family of its own, so that none is ever faked. */
  family(font: FontFace): string {
    let name = this.families.get(font);
    if (!name) this.families.set(font, (name = `${font.family} ${font.weight}${font.style === 'italic' ? ' italic' : ''}`));
    return name;
  }

  /** The class that shows a hyphen after a run whose word is divided: seen, but no text (CSS Generated Content 3, 2.1). */
  hyphenClass(run: GlyphRun): string {
    const character = run.font.glyphFor(0x2010) ? '\u2010' : '-';
    this.characters.get(run.font)!.add(character.codePointAt(0)!);
    this.hyphens.add(character);
    return character === '-' ? 'hy' : 'hp';
  }
  private readonly hyphens = new Set<string>();

  /** The class of a run's look; remembers the characters its font must have. `shifted` tells whether a raise is part of it. */
  classOf(run: GlyphRun, shifted = true): string {
    const set = this.characters.get(run.font) ?? new Set<number>();
    for (const c of run.text) set.add(c.codePointAt(0)!);
    this.characters.set(run.font, set);
    const css = this.declarations(run, shifted);
    let name = this.classes.get(css);
    if (!name) this.classes.set(css, (name = `t${this.classes.size + 1}`));
    return name;
  }

  private declarations(run: GlyphRun, shifted: boolean): string {
    const { look } = run;
    const drawn = this.isDrawn(run.font);
    const generic = /serif/i.test(run.font.family) && !/sans/i.test(run.font.family) ? 'serif' : 'sans-serif';
    const lines: string[] = [];
    if (look.underline) lines.push('underline');
    if (look.strike) lines.push('line-through');
    const features = Object.entries(run.features).filter(([tag]) => tag !== 'liga' && tag !== 'clig');
    return [
      `font-family:${drawn ? generic : `"${this.family(run.font)}",${generic}`}`,
      `font-size:${num(px(run.size), 5)}px`,
      `color:${drawn ? 'transparent' : solidHex(run.fill, this.swatches)}`,
      ...(run.letterSpace ? [`letter-spacing:${num(px(run.letterSpace / run.horizontalScale), 5)}px`] : []),
      ...(features.length ? [`font-feature-settings:${features.map(([t, v]) => `"${t}" ${v}`).join(',')}`] : []),
      ...(lines.length && !drawn ? [`text-decoration:${lines.join(' ')}`] : []),
      ...(look.stroke && look.stroke.weight > 0 && (look.stroke.paint.type === 'swatch' || look.stroke.paint.type === 'colour')
        ? [`-webkit-text-stroke:${num(px(look.stroke.weight), 4)}px ${solidHex(look.stroke.paint, this.swatches)}`]
        : []),
      ...(run.shift && shifted ? [`position:relative;top:${num(px(run.shift), 4)}px`] : []),
    ].join(';');
  }

  /** Fonts that must come along. */
  fonts(): { face: FontFace; family: string; characters: Set<number> }[] {
    return [...this.characters]
      .filter(([face]) => !this.isDrawn(face))
      .map(([face, characters]) => ({ face, family: this.family(face), characters }));
  }

  css(): string {
    const rules = [...this.classes].map(([css, name]) => `.${name}{${css}}`);
    // The second value is what assistive technology reads: nothing.
    for (const c of this.hyphens) rules.push(`.${c === '-' ? 'hy' : 'hp'}::after{content:"${c}";content:"${c}"/""}`);
    return rules.join('\n');
  }
}

import { solidHex } from '../../folio/colour.ts';
import type { Head } from '../../folio/head.ts';
import { resolveParagraphStyle } from '../../folio/resolve.ts';
import type { ResolvedStyle } from '../../folio/resolve.ts';
import { CHARACTER_DEFAULTS } from '../../folio/styles.ts';
import type { CharacterOverrides, ParagraphOverrides } from '../../folio/styles.ts';
import { el, percent, pt } from './element.ts';
import type { Xml } from './element.ts';
import type { NotHeld } from './notHeld.ts';

type Attributes = Record<string, string>;

/** How styles of text are written. */
interface StyleOptions {
  /** Families that others take the place of, by their names in small letters. */
  instead?: ReadonlyMap<string, string>;
  byHand?: boolean;
}

/** Paragraph and character properties as OpenDocument writes them (part 3, 16.27 and 16.29). */
export class TextStyles {
  constructor(
    private readonly head: Head,
    private readonly notHeld: NotHeld,
    private readonly options: StyleOptions = {},
  ) {}

  /** Whether no style of the document is one of the file: all is formatted by hand. */
  get byHand(): boolean {
    return this.options.byHand ?? false;
  }

  /** All of a paragraph’s look, for one that has no style. */
  whole({ paragraph, character }: ResolvedStyle, more: Attributes, pitch: Attributes | null): Xml[] {
    const { dropCapital } = paragraph;
    const own: ParagraphOverrides = { ...paragraph, dropCapital: dropCapital && { ...dropCapital, style: undefined } };
    return this.properties(this.withoutHang(own), character, character, more, pitch);
  }

  /** `base` is the look that percentages and an automatic leading refer to; `pitch`: a distance between lines that holds instead of it. */
  properties(
    p: ParagraphOverrides,
    c: CharacterOverrides,
    base: { size: number; leading: number | 'auto' },
    more: Attributes = {},
    pitch: Attributes | null = null,
  ): Xml[] {
    const size = c.size ?? base.size;
    const leading = c.leading ?? base.leading;
    // Leading is a property of letters here and of paragraphs there: it is written wherever it, or the size, is said.
    const height =
      pitch ?? (c.size !== undefined || c.leading !== undefined ? { 'fo:line-height': pt(leading === 'auto' ? size * 1.2 : leading) } : {});
    const paragraph = { ...this.paragraph(p), ...height };
    const tabs =
      p.tabs &&
      el(
        'style:tab-stops',
        {},
        p.tabs.map((t) => tabStop(t, p.startIndent ?? 0)),
      );
    // Over one line is none (17.9).
    const cap = p.dropCapital
      ? el('style:drop-cap', {
          'style:lines': p.dropCapital.lines,
          'style:length': p.dropCapital.characters,
          'style:style-name': p.dropCapital.style,
        })
      : p.dropCapital === null && el('style:drop-cap', { 'style:lines': 1 });
    const character = { ...this.character(c, size), ...more };
    if (p.hyphenation !== undefined) character['fo:hyphenate'] = String(p.hyphenation !== null);
    return [
      ...(Object.keys(paragraph).length || tabs || cap ? [el('style:paragraph-properties', paragraph, [tabs, cap])] : []),
      ...(Object.keys(character).length ? [el('style:text-properties', character)] : []),
    ];
  }

  /** What holds where no style says otherwise (16.4): else it would be what each program has of its own. */
  defaults(family: 'paragraph' | 'graphic', language: string): Xml {
    const { fontFamily, size, fontWeight, fontStyle, fill } = CHARACTER_DEFAULTS;
    const look = this.properties({}, { fontFamily, size, fontWeight, fontStyle, fill, language }, CHARACTER_DEFAULTS);
    return el('style:default-style', { 'style:family': family }, look);
  }

  private withoutHang(p: ParagraphOverrides): ParagraphOverrides {
    const hang = p.list ? this.hangOf(p.list.style) : 0;
    return hang ? { ...p, startIndent: (p.startIndent ?? 0) - hang, firstLineIndent: 0 } : p;
  }

  private paragraph(p: ParagraphOverrides): Attributes {
    const out: Attributes = {};
    const lengths = {
      startIndent: 'margin-left',
      endIndent: 'margin-right',
      firstLineIndent: 'text-indent',
      spaceBefore: 'margin-top',
      spaceAfter: 'margin-bottom',
    } as const;
    for (const [key, name] of Object.entries(lengths)) {
      const value = p[key as keyof typeof lengths];
      if (value !== undefined) out[`fo:${name}`] = pt(value);
    }
    if (p.align !== undefined) {
      out['fo:text-align'] = { left: 'left', right: 'right', centre: 'center', justify: 'justify', justifyAll: 'justify' }[p.align];
      if (p.align === 'justifyAll') out['fo:text-align-last'] = 'justify';
    }
    if (p.direction !== undefined) out['style:writing-mode'] = p.direction === 'rtl' ? 'rl-tb' : 'lr-tb';
    if (p.orphans !== undefined) out['fo:orphans'] = String(p.orphans);
    if (p.widows !== undefined) out['fo:widows'] = String(p.widows);
    if (p.keepLines !== undefined) out['fo:keep-together'] = p.keepLines ? 'always' : 'auto';
    if (p.keepWithNext !== undefined) out['fo:keep-with-next'] = p.keepWithNext ? 'always' : 'auto';
    if (p.breakBefore === 'page' || p.breakBefore === 'column') out['fo:break-before'] = p.breakBefore;
    if (p.hangingPunctuation) out['style:punctuation-wrap'] = 'hanging';
    if (p.shading) out['fo:background-color'] = solidHex(p.shading.paint, this.head.swatches);
    if (p.border) out['fo:border'] = `${pt(p.border.weight)} solid ${solidHex(p.border.paint, this.head.swatches)}`;
    if (p.ruleAbove || p.ruleBelow) this.notHeld.add('Rules above and below paragraphs');
    if (p.spanColumns) this.notHeld.add('Paragraphs across columns');
    if (p.alignToGrid) this.notHeld.add('Lines on a baseline grid');
    if (p.wordSpace || p.letterSpace || p.glyphWidth) this.notHeld.add('Limits of word and letter space');
    return out;
  }

  character(c: CharacterOverrides, size: number): Attributes {
    const out: Attributes = {};
    if (c.fontFamily !== undefined) out['fo:font-family'] = this.options.instead?.get(c.fontFamily.toLowerCase()) ?? c.fontFamily;
    if (c.size !== undefined) out['fo:font-size'] = pt(c.size);
    if (c.fontWeight !== undefined) out['fo:font-weight'] = String(c.fontWeight);
    if (c.fontStyle !== undefined) out['fo:font-style'] = c.fontStyle;
    if (c.fill !== undefined) out['fo:color'] = solidHex(c.fill, this.head.swatches);
    if (c.tracking !== undefined) out['fo:letter-spacing'] = pt((c.tracking / 1000) * size);
    if (c.kerning !== undefined) out['style:letter-kerning'] = String(c.kerning === 'font');
    if (c.capitals !== undefined) {
      out['fo:font-variant'] = c.capitals === 'small' ? 'small-caps' : 'normal';
      out['fo:text-transform'] = c.capitals === 'all' ? 'uppercase' : 'none';
    }
    if (c.underline !== undefined) out['style:text-underline-style'] = c.underline ? 'solid' : 'none';
    if (c.strike !== undefined) out['style:text-line-through-style'] = c.strike ? 'solid' : 'none';
    if (c.position !== undefined)
      out['style:text-position'] = { normal: '0% 100%', superscript: 'super 58%', subscript: 'sub 58%' }[c.position];
    else if (c.baselineShift !== undefined) out['style:text-position'] = `${percent(c.baselineShift / size)} 100%`;
    if (c.horizontalScale !== undefined) out['style:text-scale'] = percent(c.horizontalScale);
    if (c.language !== undefined) {
      const [language, country] = c.language.split('-');
      out['fo:language'] = language!;
      out['fo:country'] = country !== undefined && /^[A-Z]{2}$/.test(country) ? country : 'none';
    }
    if (c.features && Object.keys(c.features).length) this.notHeld.add('OpenType features');
    if (c.stroke) this.notHeld.add('Outlined letters');
    if (c.noBreak) this.notHeld.add('Words that may not be divided');
    return out;
  }

  /** How far labels of a list hang out before their texts by the indents of the style that uses it: there the list says it. */
  private hangOf(list: string): number {
    const user = Object.values(this.head.paragraphStyles).find((s) => s.paragraph.list?.style === list);
    return Math.max(0, -(user?.paragraph.firstLineIndent ?? 0));
  }

  /** All named styles of text, with what they are based on. */
  named(): Xml[] {
    const lists = Object.values(this.head.listStyles).map((l) => listStyle(l, this.hangOf(l.id), this.byHand));
    if (this.byHand) return lists;
    const paragraphs = Object.values(this.head.paragraphStyles).map((s) => {
      const above = s.basedOn === undefined ? undefined : resolveParagraphStyle(this.head, s.basedOn).character;
      const own = resolveParagraphStyle(this.head, s.id).character;
      if (s.role) this.notHeld.add('Roles of styles');
      return el(
        'style:style',
        { 'style:name': s.id, 'style:display-name': s.name, 'style:family': 'paragraph', 'style:parent-style-name': s.basedOn },
        // A style without one below it says all that holds where nothing is said.
        this.properties(
          this.withoutHang(s.paragraph),
          above ? s.character : { ...own, ...s.character, features: s.character.features ?? {} },
          above ?? own,
        ),
      );
    });
    const characters = Object.values(this.head.characterStyles).map((s) =>
      el(
        'style:style',
        { 'style:name': s.id, 'style:display-name': s.name, 'style:family': 'text', 'style:parent-style-name': s.basedOn },
        [el('style:text-properties', this.character(s.character, s.character.size ?? 10))],
      ),
    );
    return [...paragraphs, ...characters, ...lists];
  }
}

const tabStop = (t: NonNullable<ParagraphOverrides['tabs']>[number], indent: number): Xml =>
  el('style:tab-stop', {
    'style:position': pt(t.at - indent),
    'style:type': { left: 'left', right: 'right', centre: 'center', character: 'char' }[t.align],
    'style:char': t.align === 'character' ? (t.character ?? '.') : undefined,
    ...(t.leader && { 'style:leader-style': 'dotted', 'style:leader-text': t.leader.slice(0, 1) }),
  });

const FORMATS = { decimal: '1', lowerAlpha: 'a', upperAlpha: 'A', lowerRoman: 'i', upperRoman: 'I' } as const;

/** A list style (16.30): labels hang before their texts. */
function listStyle(style: Head['listStyles'][string], hang: number, byHand: boolean): Xml {
  const levels = style.levels.slice(0, 10).map((l, i) => {
    const properties = el('style:list-level-properties', {
      'text:space-before': '0pt',
      'text:min-label-width': pt(Math.max(0, l.indent) + hang),
    });
    const at = { 'text:level': i + 1, 'text:style-name': byHand ? undefined : l.character };
    if (l.kind === 'bullet') return el('text:list-level-style-bullet', { ...at, 'text:bullet-char': l.text || '\u200b' }, [properties]);
    const [before = '', after = ''] = l.text.split('{n}');
    const prefix = before.replace(/\{\d\}\.?/g, '');
    const above = before.match(/\{\d\}/g)?.length ?? 0;
    return el(
      'text:list-level-style-number',
      {
        ...at,
        'style:num-format': FORMATS[l.format],
        'style:num-prefix': prefix || undefined,
        'style:num-suffix': after || undefined,
        'text:display-levels': above ? above + 1 : undefined,
      },
      [properties],
    );
  });
  return el('text:list-style', { 'style:name': style.id, 'style:display-name': style.name }, levels);
}

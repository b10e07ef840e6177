import type { Folio } from '../../folio/folio.ts';
import { solidHex } from '../../folio/colour.ts';
import type { SolidPaint } from '../../folio/colour.ts';
import { leadingOf, resolveParagraph, resolveParagraphStyle, resolveSpan } from '../../folio/resolve.ts';
import type { Cell, Paragraph, Span, Table } from '../../folio/story.ts';
import { lookOfCell, lookOfCellStyle, styleOfCell } from '../../folio/tableCells.ts';
import type { CharacterProperties, ParagraphProperties } from '../../folio/styles.ts';
import { num } from '../../paint/svg/markup.ts';
import { cellRule } from './cellRule.ts';
import { seenAs } from './readersInk.ts';

export type Declarations = Record<string, string>;

const MONOSPACED = /mono|courier|typewriter|cousine/i;
const WITH_SERIFS = /(?<!sans[ -]?)serif|roman|times|tinos/i;

/**
 * Styles of a document as classes of CSS for running text: named after them, with lengths that go with the reader’s own size of
 * text. Made as they are asked for, so that a sheet holds what is used.
 */
export class FlowStyles {
  private readonly names = new Map<string, string>();
  private readonly taken = new Set<string>();
  private readonly rules = new Map<string, Declarations>();
  private readonly byHand = new Map<string, string>();
  /** The size in points that readers get as their own: that of the style with most of the text. */
  readonly base: number;

  constructor(
    private readonly folio: Folio,
    used: ReadonlySet<string>,
    /** The families that text of a look is shown in; none where readers choose. */
    private readonly families: (look: CharacterProperties) => readonly string[],
  ) {
    this.base = baseSize(folio, used);
  }

  /**
   * The classes of a paragraph: its style’s, its role’s own, and what was formatted by hand. `ink`: the colour that text has where
   * it stands; undefined on the reader’s own paper.
   */
  paragraph(paragraph: Paragraph, ink?: string): string[] {
    const { head } = this.folio;
    const style = head.paragraphStyles[paragraph.style];
    const out = [
      this.named(`p:${paragraph.style}`, style?.name ?? paragraph.style, () =>
        this.paragraphRule(resolveParagraphStyle(head, paragraph.style)),
      ),
    ];
    if (style?.role?.class) out.push(style.role.class);
    if (paragraph.overrides ?? paragraph.character) {
      const own = this.paragraphRule(resolveParagraph(head, paragraph));
      out.push(...this.hand(difference(own, this.paragraphRule(resolveParagraphStyle(head, paragraph.style)))));
    }
    if (this.dropCapital(paragraph)) out.push('initial');
    if (ink !== undefined) {
      const { fill } = resolveParagraph(head, paragraph).character;
      const colour = solidHex(fill, head.swatches);
      if ((this.colourOf(fill) ?? ink) !== colour) out.push(...this.hand({ color: colour }));
    }
    return [...new Set(out)];
  }

  /** The classes of a span inside a paragraph. */
  span(paragraph: Paragraph, span: Pick<Span, 'style' | 'overrides'>): string[] {
    const { head } = this.folio;
    const out: string[] = [];
    const { character } = resolveParagraph(head, paragraph);
    if (span.style !== undefined) {
      const style = head.characterStyles[span.style];
      const body = resolveParagraphStyle(head, paragraph.style).character;
      // A style of characters is told by what it changes, in whatever paragraph it stands.
      out.push(
        this.named(`c:${span.style}`, style?.name ?? span.style, () =>
          difference(this.characterRule(resolveSpan(head, body, { style: span.style }), body), this.characterRule(body, body)),
        ),
      );
      if (style?.role?.class) out.push(style.role.class);
    }
    if (span.overrides) {
      const without = resolveSpan(head, character, { style: span.style });
      out.push(
        ...this.hand(difference(this.characterRule(resolveSpan(head, character, span), character), this.characterRule(without, character))),
      );
    }
    return out;
  }

  /** The classes of a cell, and the colour that text in it has; null where that is the reader’s. */
  cell(table: Table, cell: Cell, first: Paragraph | undefined): { classes: string[]; ink: string | undefined } {
    const { head } = this.folio;
    const text = first && solidHex(resolveParagraph(head, first).character.fill, head.swatches);
    const rule = (look: ReturnType<typeof lookOfCell>): Declarations => cellRule(head.swatches, look, text, this.base);
    const look = lookOfCell(head, table, cell);
    const own: Declarations = { ...rule(look), ...(cell.verticalAlign !== 'top' && { 'vertical-align': IN_CELL[cell.verticalAlign] }) };
    const id = styleOfCell(head, table, cell);
    const style = id === undefined ? undefined : head.cellStyles[id];
    const named = style && this.named(`k:${style.id}`, style.name, () => rule(lookOfCellStyle(head, style.id)));
    const classes = named ? [named, ...this.hand(difference(own, this.rules.get(named)!))] : this.hand(own);
    return { classes, ink: own['color'] };
  }

  /** The class of what takes a share of the width around it. */
  width(share: number): string {
    const percent = Math.round(share * 100);
    this.rules.set(`width-${percent}`, { width: `${percent}%` });
    return `width-${percent}`;
  }

  css(): string {
    const byHand = new Set(this.byHand.values());
    const rules = [...this.rules].filter(([, d]) => Object.keys(d).length);
    // What was done by hand holds over every style, also over one that is used for the first time further on.
    return [...rules.filter(([name]) => !byHand.has(name)), ...rules.filter(([name]) => byHand.has(name))]
      .map(
        ([name, d]) =>
          `.${name} {\n${Object.entries(d)
            .map(([k, v]) => `  ${k}: ${v};\n`)
            .join('')}}`,
      )
      .join('\n');
  }

  private named(key: string, name: string, make: () => Declarations): string {
    const known = this.names.get(key);
    if (known !== undefined) return known;
    const stem = classOf(name);
    let free = stem;
    for (let n = 2; this.taken.has(free); n++) free = `${stem}-${n}`;
    this.taken.add(free);
    this.names.set(key, free);
    this.rules.set(free, make());
    return free;
  }

  private hand(declarations: Declarations): string[] {
    if (!Object.keys(declarations).length) return [];
    const key = JSON.stringify(declarations);
    let name = this.byHand.get(key);
    if (name === undefined) {
      this.byHand.set(key, (name = `by-hand-${this.byHand.size + 1}`));
      this.rules.set(name, declarations);
    }
    return [name];
  }

  private dropCapital(paragraph: Paragraph): boolean {
    const look = resolveParagraph(this.folio.head, paragraph);
    const initial = look.paragraph.dropCapital;
    if (!initial) return false;
    const lines = initial.lines;
    // A capital is about seven tenths of its size (common practice): so it reaches from the first line's top to the last one's foot.
    const size = ((lines - 1) * leadingOf(look.character)) / look.character.size / 0.7 + 1;
    this.rules.set('initial::first-letter', {
      float: 'left',
      'font-size': `${num(size, 2)}em`,
      'line-height': '0.8',
      'padding-right': '0.06em',
    });
    return true;
  }

  private paragraphRule({ paragraph: p, character: c }: { paragraph: ParagraphProperties; character: CharacterProperties }): Declarations {
    const em = (points: number): string => (points ? `${num(points / c.size, 3)}em` : '0');
    const align: Record<ParagraphProperties['align'], string> = {
      left: 'left',
      right: 'right',
      centre: 'center',
      justify: 'justify',
      justifyAll: 'justify',
    };
    return {
      ...this.characterRule(c, null),
      'line-height': num(leadingOf(c) / c.size, 3),
      'text-align': align[p.align],
      // What hangs out further than the text is set in, such as a number before a heading, would leave the screen.
      'text-indent': p.list ? '0' : em(Math.max(p.firstLineIndent, -p.startIndent)),
      margin: `${em(p.spaceBefore)} ${em(p.endIndent)} ${em(p.spaceAfter)} ${em(p.list ? 0 : p.startIndent)}`,
      ...(p.hyphenation ? { '-webkit-hyphens': 'auto', hyphens: 'auto' } : { '-webkit-hyphens': 'manual', hyphens: 'manual' }),
      ...(p.direction === 'rtl' && { direction: 'rtl' }),
      ...(p.keepLines && { 'break-inside': 'avoid' }),
      ...(p.keepWithNext && { 'break-after': 'avoid' }),
      // Whoever sets a ground sets the ink on it: readers may have white text.
      ...(p.shading && {
        'background-color': solidHex(p.shading.paint, this.folio.head.swatches),
        color: solidHex(c.fill, this.folio.head.swatches),
        padding: '0.3em 0.6em',
      }),
    };
  }

  /** `within`: the look around it, whose size lengths go by; null for a paragraph's own, which goes by the reader's. */
  private characterRule(c: CharacterProperties, within: CharacterProperties | null): Declarations {
    const lines = [c.underline && 'underline', c.strike && 'line-through'].filter(Boolean).join(' ');
    const colour = this.colourOf(c.fill);
    return {
      ...this.familyOf(c),
      'font-size': `${num(c.size / (within ? within.size : this.base), 3)}em`,
      'font-weight': String(c.fontWeight),
      'font-style': c.fontStyle,
      ...(colour !== null && { color: colour }),
      'letter-spacing': c.tracking ? `${num(c.tracking / 1000, 3)}em` : 'normal',
      'text-transform': c.capitals === 'all' ? 'uppercase' : 'none',
      'font-variant': c.capitals === 'small' ? 'small-caps' : 'normal',
      'text-decoration': lines || 'none',
      ...(c.position !== 'normal' && {
        'vertical-align': c.position === 'superscript' ? 'super' : 'sub',
        'font-size': '0.7em',
        'line-height': '0',
      }),
      ...(c.noBreak && { 'white-space': 'nowrap' }),
    };
  }

  private familyOf(c: CharacterProperties): Declarations {
    const families = this.families(c);
    if (!families.length) return {};
    const generic = MONOSPACED.test(families[0]!) ? 'monospace' : WITH_SERIFS.test(families[0]!) ? 'serif' : 'sans-serif';
    return { 'font-family': [...families.map((f) => `"${f.replace(/["\\]/g, '')}"`), generic].join(', ') };
  }

  /** A colour that is seen on the reader’s paper; black and what is nearly so are left to the reader. */
  private colourOf(paint: SolidPaint): string | null {
    return seenAs(paint, this.folio) === 'itself' ? solidHex(paint, this.folio.head.swatches) : null;
  }
}

const IN_CELL = { centre: 'middle', bottom: 'bottom' } as const;

function difference(own: Declarations, without: Declarations): Declarations {
  return Object.fromEntries(Object.entries(own).filter(([k, v]) => without[k] !== v));
}

/** A name as a class that people can read; letters with marks lose them. */
function classOf(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return /^[a-z]/.test(plain) ? plain : `s-${plain || 'style'}`;
}

function baseSize(folio: Folio, used: ReadonlySet<string>): number {
  const characters = new Map<number, number>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks)) {
      if (block.kind !== 'paragraph' || !used.has(block.id)) continue;
      const { size } = resolveParagraph(folio.head, block).character;
      const length = block.content.reduce((n, node) => n + (node.type === 'span' ? node.text.length : 0), 0);
      characters.set(size, (characters.get(size) ?? 0) + length);
    }
  return [...characters].reduce((a, b) => (b[1] > a[1] ? b : a), [10, 0])[0];
}

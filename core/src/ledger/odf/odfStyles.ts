import type { SeenStyle } from '../flow/cascade.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';

/** A length of OpenDocument in points (part 3, 18.3.18). */
export function pointsOf(length: string | undefined): number {
  const [, n, unit = ''] = /^(-?[\d.]+)(pt|mm|cm|in|px)?$/.exec(length ?? '') ?? [];
  return Number(n ?? 0) * ({ pt: 1, mm: 72 / 25.4, cm: 72 / 2.54, in: 72, px: 0.75 }[unit] ?? 1);
}

export interface TextLook {
  look: SeenStyle;
  language: string;
}

/** Styles of a package of OpenDocument: named ones, and those of single places, each with what it is based on (part 3, 16.2). */
export class OdfStyles {
  private readonly styles = new Map<string, Node>();
  private readonly lists = new Map<string, Node>();
  private readonly defaults = new Map<string, Node>();

  /** `named`: the part that has the named styles; `single`: the one whose own styles of single places count (part 3, 3.1.3). */
  constructor(named: Node | undefined, single: Node | undefined) {
    for (const group of [child(named, 'office:styles'), child(single, 'office:automatic-styles')]) {
      for (const s of childrenOf(group, 'style:style')) this.styles.set(`${s.attributes['style:family']} ${s.attributes['style:name']}`, s);
      for (const d of childrenOf(group, 'style:default-style')) this.defaults.set(d.attributes['style:family'] ?? '', d);
      for (const l of childrenOf(group, 'text:list-style')) this.lists.set(l.attributes['style:name'] ?? '', l);
    }
  }

  list(name: string): Node | undefined {
    return this.lists.get(name);
  }

  /** A property of a style, or of what it is based on. */
  get(family: string, name: string | undefined, group: string, property: string): string | undefined {
    const seen = new Set<string>();
    for (let at = name; at !== undefined && !seen.has(at);) {
      seen.add(at);
      const style = this.styles.get(`${family} ${at}`);
      const value = child(style, group)?.attributes[property];
      if (value !== undefined) return value;
      at = style?.attributes['style:parent-style-name'];
    }
    // Texts of shapes look as their shapes say.
    if (family === 'paragraph' && this.shape) {
      const { family: of, style } = this.shape;
      const said = this.get(of, style, group, property);
      if (said !== undefined) return said;
    }
    // What holds where no style says otherwise (16.4).
    return child(this.defaults.get(family), group)?.attributes[property];
  }

  private shape: { family: string; style: string | undefined } | null = null;
  /** Does something with the texts of a shape, which look as its style says where theirs say nothing. */
  around<T>(family: string, style: string | undefined, work: () => T): T {
    const before = this.shape;
    this.shape = { family, style };
    const out = work();
    this.shape = before;
    return out;
  }

  /** Whether a paragraph begins with letters over several lines (17.9). */
  hasInitial(name: string | undefined): boolean {
    const seen = new Set<string>();
    for (let at = name; at !== undefined && !seen.has(at);) {
      seen.add(at);
      const style = this.styles.get(`paragraph ${at}`);
      const cap = child(child(style, 'style:paragraph-properties'), 'style:drop-cap');
      if (cap) return Number(cap.attributes['style:lines'] ?? 1) > 1;
      at = style?.attributes['style:parent-style-name'];
    }
    return false;
  }

  /** The columns of a section, or of a box; null where it has one (16.27.4). */
  columns(family: 'section' | 'graphic', name: string | undefined): { count: number; gap: number } | null {
    const style = this.styles.get(`${family} ${name}`);
    const columns = child(child(style, `style:${family}-properties`), 'style:columns')?.attributes;
    const count = Number(columns?.['fo:column-count'] ?? 1);
    return count > 1 ? { count, gap: pointsOf(columns?.['fo:column-gap']) } : null;
  }

  graphic(name: string | undefined, property: string): string | undefined {
    return this.get('graphic', name, 'style:graphic-properties', property);
  }

  /** How words look: by their own styles, innermost first, else by that of their paragraph. */
  words(spans: readonly string[], paragraph: string | undefined, ground: string | null, link: boolean): TextLook {
    const get = (property: string): string | undefined => {
      for (const span of spans) {
        const own = this.get('text', span, 'style:text-properties', property);
        if (own !== undefined) return own;
      }
      return this.get('paragraph', paragraph, 'style:text-properties', property);
    };
    const inParagraph = (property: string): string | undefined => this.get('paragraph', paragraph, 'style:paragraph-properties', property);
    const [language, country] = [get('fo:language'), get('fo:country')];
    const position = get('style:text-position') ?? '';
    const shade = inParagraph('fo:background-color');
    const is = (property: string): boolean => (get(property) ?? 'none') !== 'none';
    return {
      language: language === undefined ? '' : country && country !== 'none' ? `${language}-${country}` : language,
      look: {
        family: get('fo:font-family') ?? '',
        weight: get('fo:font-weight') ?? '400',
        style: get('fo:font-style') ?? 'normal',
        align:
          { left: 'left', start: 'left', right: 'right', end: 'right', center: 'center', justify: 'justify' }[
            inParagraph('fo:text-align') ?? 'left'
          ] ?? 'left',
        size: pointsOf(get('fo:font-size')),
        colour: get('style:use-window-font-color') === 'true' ? null : (get('fo:color')?.toLowerCase() ?? null),
        ground: shade && shade !== 'transparent' ? shade : ground,
        capitals: get('fo:text-transform') === 'uppercase' ? 'all' : get('fo:font-variant') === 'small-caps' ? 'small' : 'normal',
        position: /^super/.test(position) ? 'superscript' : /^sub/.test(position) ? 'subscript' : 'normal',
        underline: is('style:text-underline-style'),
        strike: is('style:text-line-through-style'),
        link,
      },
    };
  }
}

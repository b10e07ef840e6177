import type { SeenStyle } from '../flow/cascade.ts';
import { child, childrenOf, valueOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';

/** Properties by the names of their elements. */
type Properties = Map<string, Node>;

const on = (node: Node | undefined): boolean => node !== undefined && !/^(0|false|off)$/.test(node.attributes['w:val'] ?? '');
const TOGGLES = ['w:b', 'w:i', 'w:caps', 'w:smallCaps', 'w:strike'] as const;

/** How text looks by a document's styles and by hand (ISO/IEC 29500-1, 17.7.2, style hierarchy; 17.7.3, toggle properties). */
export class WordLooks {
  private readonly styles = new Map<string, Node>();
  private readonly defaults: { run: Properties; paragraph: Properties };
  private readonly chains = new Map<string, { run: Properties; paragraph: Properties }>();
  /** The style of paragraphs that name none. */
  private readonly usual: string | undefined;

  constructor(styles: Node | undefined) {
    for (const style of childrenOf(styles, 'w:style')) this.styles.set(style.attributes['w:styleId'] ?? '', style);
    const defaults = child(styles, 'w:docDefaults');
    this.defaults = {
      run: propertiesOf(child(child(defaults, 'w:rPrDefault'), 'w:rPr')),
      paragraph: propertiesOf(child(child(defaults, 'w:pPrDefault'), 'w:pPr')),
    };
    const isUsual = (s: Node): boolean => s.attributes['w:type'] === 'paragraph' && s.attributes['w:default'] === '1';
    this.usual = childrenOf(styles, 'w:style').find(isUsual)?.attributes['w:styleId'];
  }

  /** The name of a style, as people see it. */
  nameOf(style: string | undefined): string {
    return valueOf(this.styles.get(style ?? this.usual ?? ''), 'w:name') ?? '';
  }

  style(id: string | undefined): Node | undefined {
    return id === undefined ? undefined : this.styles.get(id);
  }

  /** A property of a paragraph: its own, else its style’s, else that of all. */
  paragraph(pPr: Node | undefined, name: string): Node | undefined {
    return child(pPr, name) ?? this.chain(valueOf(pPr, 'w:pStyle') ?? this.usual).paragraph.get(name) ?? this.defaults.paragraph.get(name);
  }

  /** Look and language of words in a paragraph. `ground`: that of what they stand in. */
  run(pPr: Node | undefined, rPr: Node | undefined, ground: string | null, link = false): { look: SeenStyle; language: string } {
    const below = this.chain(valueOf(pPr, 'w:pStyle') ?? this.usual).run;
    const character = this.chain(valueOf(rPr, 'w:rStyle')).run;
    const own = propertiesOf(rPr);
    const get = (name: string): Node | undefined => own.get(name) ?? character.get(name) ?? below.get(name) ?? this.defaults.run.get(name);
    const toggled = new Map(
      TOGGLES.map((name) => [
        name,
        own.has(name) ? on(own.get(name)) : on(this.defaults.run.get(name)) || on(below.get(name)) !== on(character.get(name)),
      ]),
    );
    const shade = this.paragraph(pPr, 'w:shd')?.attributes['w:fill'];
    const value = (name: string): string | undefined => get(name)?.attributes['w:val'];
    const colour = value('w:color');
    return {
      language: value('w:lang') ?? '',
      look: {
        family: get('w:rFonts')?.attributes['w:ascii'] ?? '',
        weight: toggled.get('w:b') ? '700' : '400',
        style: toggled.get('w:i') ? 'italic' : 'normal',
        align: ALIGNED[this.paragraph(pPr, 'w:jc')?.attributes['w:val'] ?? 'left'] ?? 'left',
        size: Number(value('w:sz') ?? 20) / 2,
        colour: colour === undefined || colour === 'auto' ? null : `#${colour.toLowerCase()}`,
        ground: shade && shade !== 'auto' ? `#${shade.toLowerCase()}` : ground,
        capitals: toggled.get('w:caps') ? 'all' : toggled.get('w:smallCaps') ? 'small' : 'normal',
        position: value('w:vertAlign') === 'superscript' ? 'superscript' : value('w:vertAlign') === 'subscript' ? 'subscript' : 'normal',
        underline: (value('w:u') ?? 'none') !== 'none',
        strike: toggled.get('w:strike') ?? false,
        link,
      },
    };
  }

  /** A property of words that is no part of their look as it is compared. */
  raw(pPr: Node | undefined, rPr: Node | undefined, name: string): Node | undefined {
    return (
      child(rPr, name) ??
      this.chain(valueOf(rPr, 'w:rStyle')).run.get(name) ??
      this.chain(valueOf(pPr, 'w:pStyle') ?? this.usual).run.get(name) ??
      this.defaults.run.get(name)
    );
  }

  private chain(id: string | undefined): { run: Properties; paragraph: Properties } {
    const none = { run: new Map<string, Node>(), paragraph: new Map<string, Node>() };
    if (id === undefined) return none;
    let known = this.chains.get(id);
    if (known) return known;
    this.chains.set(id, none);
    const style = this.styles.get(id);
    const below = style ? this.chain(valueOf(style, 'w:basedOn')) : none;
    known = {
      run: new Map([...below.run, ...propertiesOf(child(style, 'w:rPr'))]),
      paragraph: new Map([...below.paragraph, ...propertiesOf(child(style, 'w:pPr'))]),
    };
    this.chains.set(id, known);
    return known;
  }
}

const propertiesOf = (node: Node | undefined): Properties => new Map(node?.children.map((c) => [c.name, c]));

const ALIGNED: Record<string, string> = {
  left: 'left',
  start: 'left',
  right: 'right',
  end: 'right',
  center: 'center',
  both: 'justify',
  distribute: 'justify',
};

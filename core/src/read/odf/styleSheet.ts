import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Families whose styles are looked at (OpenDocument 1.3 part 3, 19.480 style:family). */
export type Family =
  'graphic' | 'presentation' | 'drawing-page' | 'paragraph' | 'text' | 'table' | 'table-column' | 'table-row' | 'table-cell';

/** Attributes of the elements that hold a style's properties, by the element's name without prefix. */
export type Properties = Record<string, Record<string, string>>;

/** A style as it stands in the file. */
export interface OdfStyle {
  family: Family;
  name: string;
  displayName: string;
  parent: string | undefined;
  /** Made by hand on one object, not named by the designer. */
  automatic: boolean;
  own: Properties;
  element: XmlElement;
}

/** What the named things of a document are called by their names: gradients, hatches, pictures of fills, markers, dashes. */
export interface Definitions {
  gradients: Map<string, XmlElement>;
  opacities: Map<string, XmlElement>;
  hatches: Map<string, XmlElement>;
  fillImages: Map<string, XmlElement>;
  markers: Map<string, XmlElement>;
  dashes: Map<string, XmlElement>;
}

const DEFINED: Record<string, keyof Definitions> = {
  'draw:gradient': 'gradients',
  'draw:opacity': 'opacities',
  'draw:hatch': 'hatches',
  'draw:fill-image': 'fillImages',
  'draw:marker': 'markers',
  'draw:stroke-dash': 'dashes',
};

/** All styles of a document, named and automatic, with their inheritance. */
export class StyleSheet {
  readonly lists = new Map<string, XmlElement>();
  /** Looks for tables, by their names (16.18). */
  readonly templates = new Map<string, XmlElement>();
  readonly definitions: Definitions = {
    gradients: new Map(),
    opacities: new Map(),
    hatches: new Map(),
    fillImages: new Map(),
    markers: new Map(),
    dashes: new Map(),
  };
  private readonly styles = new Map<string, OdfStyle>();
  private readonly defaults = new Map<Family, Properties>();
  /** Styles do not change once they are taken: what they come to is worked out once for each. */
  private readonly resolved = new Map<string, Properties>();
  private readonly chains = new Map<string, readonly OdfStyle[]>();

  /** `scope` tells automatic styles of content.xml from those of styles.xml: both may use one name for different things. */
  take(container: XmlElement | undefined, automatic: boolean, scope: Scope): void {
    for (const element of container ? childrenOf(container) : []) {
      const { attributes } = element;
      if (element.name === 'style:style') {
        const family = attributes['style:family'] as Family;
        const name = attributes['style:name'] ?? '';
        this.styles.set(keyOf(family, name, automatic ? scope : 'named'), {
          family,
          name,
          displayName: attributes['style:display-name'] ?? decodeName(name),
          parent: attributes['style:parent-style-name'],
          automatic,
          own: propertiesIn(element),
          element,
        });
      } else if (element.name === 'style:default-style') this.defaults.set(attributes['style:family'] as Family, propertiesIn(element));
      else if (element.name === 'table:table-template')
        this.templates.set(attributes['table:name'] ?? attributes['text:style-name'] ?? '', element);
      else if (element.name === 'text:list-style')
        this.lists.set(`${automatic ? scope : 'named'} ${attributes['style:name'] ?? ''}`, element);
      else {
        const kind = DEFINED[element.name];
        if (kind) this.definitions[kind].set(attributes['draw:name'] ?? '', element);
      }
    }
  }

  find(family: Family, name: string | undefined, scope: Scope | 'named'): OdfStyle | undefined {
    if (name === undefined) return undefined;
    return this.styles.get(keyOf(family, name, scope)) ?? this.styles.get(keyOf(family, name, 'named'));
  }

  list(name: string | undefined, scope: Scope): XmlElement | undefined {
    return name === undefined ? undefined : (this.lists.get(`${scope} ${name}`) ?? this.lists.get(`named ${name}`));
  }

  /** A style and those it is based on, from itself up; one that is based on itself is cut where it repeats. */
  chain(family: Family, name: string | undefined, scope: Scope): readonly OdfStyle[] {
    if (name === undefined) return [];
    const key = keyOf(family, name, scope);
    let found = this.chains.get(key);
    if (!found) this.chains.set(key, (found = this.chainFrom(this.find(family, name, scope))));
    return found;
  }

  private chainFrom(style: OdfStyle | undefined): OdfStyle[] {
    const out: OdfStyle[] = [];
    let at = style;
    while (at && !out.includes(at)) {
      out.push(at);
      // A style's parent is always a named one.
      at = at.parent === undefined ? undefined : this.find(at.family, at.parent, 'named');
    }
    return out;
  }

  /** The nearest named style of a chain: what the designer chose. */
  named(family: Family, name: string | undefined, scope: Scope): OdfStyle | undefined {
    return this.chain(family, name, scope).find((s) => !s.automatic);
  }

  /** All properties of a style with what it inherits and the family's defaults. */
  resolve(family: Family, name: string | undefined, scope: Scope): Properties {
    const key = keyOf(family, name ?? '', scope);
    let found = this.resolved.get(key);
    if (!found) {
      found = merge([this.defaults.get(family) ?? {}, ...upsideDown(this.chain(family, name, scope)).map((s) => s.own)]);
      this.resolved.set(key, found);
    }
    return found;
  }

  /** What automatic styles add to the nearest named one: the overrides of a place. */
  overrides(family: Family, name: string | undefined, scope: Scope): Properties {
    const chain = this.chain(family, name, scope);
    const end = chain.findIndex((s) => !s.automatic);
    return merge(upsideDown(end < 0 ? chain : chain.slice(0, end)).map((s) => s.own));
  }

  default(family: Family): Properties {
    return this.defaults.get(family) ?? {};
  }

  allNamed(): OdfStyle[] {
    return [...this.styles.values()].filter((s) => !s.automatic);
  }
}

/** Which part's automatic styles are meant. */
export type Scope = 'content' | 'styles';

const upsideDown = (chain: readonly OdfStyle[]): OdfStyle[] => [...chain].reverse();

const keyOf = (family: string, name: string, scope: Scope | 'named'): string => `${scope} ${family} ${name}`;

function propertiesIn(style: XmlElement): Properties {
  const out: Properties = {};
  for (const child of childrenOf(style)) {
    // Programs write a cell's graphic properties under an extension's prefix.
    const kind = /^[^:]+:(.+)-properties$/.exec(child.name)?.[1];
    if (kind) out[kind] = { ...out[kind], ...child.attributes };
  }
  return style.attributes['style:family'] === 'table-cell' ? ofCell(out) : out;
}

/** Fill, lines and room of a cell stand among its graphic or paragraph properties, or among its own: here they are all its own. */
function ofCell({ graphic, paragraph = {}, ...rest }: Properties): Properties {
  const ofBox = (name: string): boolean => /^fo:(border|padding)/.test(name);
  const boxed = Object.entries(paragraph).filter(([name]) => ofBox(name));
  return {
    ...rest,
    paragraph: Object.fromEntries(Object.entries(paragraph).filter(([name]) => !ofBox(name))),
    'table-cell': { ...Object.fromEntries(boxed), ...graphic, ...rest['table-cell'] },
  };
}

export function merge(all: readonly Properties[]): Properties {
  const out: Properties = {};
  for (const properties of all) for (const [kind, attributes] of Object.entries(properties)) out[kind] = { ...out[kind], ...attributes };
  return out;
}

/** Names are written as XML names: `_20_` stands for a space (19.498). */
export const decodeName = (name: string): string =>
  name.replace(/_([0-9a-fA-F]{1,5})_/g, (all, code: string) => {
    const point = parseInt(code, 16);
    return point >= 0x20 && point <= 0x10ffff ? String.fromCodePoint(point) : all;
  });

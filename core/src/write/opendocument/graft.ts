import { isSafeAddress } from '../../folio/address.ts';
import type { OriginalParts } from '../../read/odf/originalParts.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import { el, text } from './element.ts';
import type { Xml } from './element.ts';
import type { OdfFile } from './odfPackage.ts';

/** Attributes whose values are names of styles, of looks or of typefaces (part 3, chapter 19), lists of such among them. */
const NAMES = new Set([
  ...['draw', 'presentation', 'text', 'table', 'style'].map((p) => `${p}:style-name`),
  ...['draw', 'presentation', 'text'].map((p) => `${p}:class-names`),
  'draw:text-style-name',
  'draw:fill-gradient-name',
  'draw:fill-hatch-name',
  'draw:fill-image-name',
  'draw:opacity-name',
  'draw:marker-start',
  'draw:marker-end',
  'draw:stroke-dash',
  'draw:stroke-dash-names',
  'draw:master-page-name',
  'presentation:presentation-page-layout-name',
  'style:parent-style-name',
  'style:next-style-name',
  'style:list-style-name',
  'style:page-layout-name',
  'style:data-style-name',
  'style:percentage-data-style-name',
  'style:apply-style-name',
  'style:font-name',
  'style:font-name-asian',
  'style:font-name-complex',
  'table:default-cell-style-name',
  'table:template-name',
  'text:visited-style-name',
  'text:citation-style-name',
  'presentation:use-header-name',
  'presentation:use-footer-name',
  'presentation:use-date-time-name',
]);
/** What could run a program, or ask for something elsewhere. */
const REFUSED = new Set(['script:event-listener', 'draw:applet', 'draw:floating-frame', 'office:script', 'office:scripts']);
const PROGRAMS = /(^|\/)(Basic|Scripts)\//;
const DECLARED = ['presentation:header-decl', 'presentation:footer-decl', 'presentation:date-time-decl'];

/** What text is like where nothing is said of it (20.197, 20.394), and by what something is said. */
const group = (name: string, attributes: Record<string, string>): XmlElement => ({ name, attributes, children: [], path: '' });
const USUAL = [
  group('style:paragraph-properties', { 'fo:line-height': 'normal' }),
  group('style:text-properties', { 'style:use-window-font-color': 'true' }),
];
const SAID: Record<string, string[]> = {
  'style:paragraph-properties': ['fo:line-height', 'style:line-height-at-least'],
  'style:text-properties': ['fo:color', 'style:use-window-font-color'],
};

type Part = 'content' | 'styles';

/** Styles of a document and parts of its pages, made fit to stand in another: under names that nothing there has. */
export class Graft {
  /** Names of what each part has for single places, and of what all share. */
  private readonly single: Record<Part, Set<string>>;
  private readonly shared: Set<string>;
  private readonly defaults = new Map<string, XmlElement>();
  private readonly wanted = new Map<string, OdfFile>();
  private readonly isFlat: boolean;

  constructor(private readonly original: OriginalParts) {
    const { content, styles } = original;
    this.isFlat = content === styles;
    const namesIn = (group: XmlElement | undefined): string[] => childrenOf(group).flatMap((s) => nameOf(s) ?? []);
    this.single = {
      content: new Set(namesIn(childOf(content, 'office:automatic-styles'))),
      styles: new Set(namesIn(childOf(styles, 'office:automatic-styles'))),
    };
    const body = childOf(childOf(content, 'office:body'), 'office:presentation');
    this.shared = new Set([
      ...namesIn(childOf(styles, 'office:styles')),
      ...namesIn(childOf(styles, 'office:master-styles')),
      ...[content, styles].flatMap((root) => namesIn(childOf(root, 'office:font-face-decls'))),
      ...DECLARED.flatMap((name) => childrenOf(body, name).map((d) => d.attributes['presentation:name'] ?? '')),
    ]);
    for (const style of childrenOf(childOf(styles, 'office:styles'), 'style:default-style'))
      this.defaults.set(style.attributes['style:family'] ?? '', style);
  }

  /** Whether all of an element can stand elsewhere: it holds nothing that could run a program, or that would be fetched from elsewhere. */
  takesWhole(element: XmlElement): boolean {
    const href = element.attributes['xlink:href'];
    if (REFUSED.has(element.name) || (href !== undefined && !this.leadsSomewhere(element.name, href))) return false;
    return childrenOf(element).every((c) => this.takesWhole(c));
  }

  /** An element with all that is in it, as it stands in the other document. */
  xml(element: XmlElement, part: Part): Xml | null {
    if (REFUSED.has(element.name) || element.name.startsWith('?')) return null;
    const inside = element.children.map((c) => (typeof c === 'string' ? text(c) : this.xml(c, part)));
    const attributes: Record<string, string> = {};
    for (const [name, value] of Object.entries(element.attributes)) {
      if (name.startsWith('?') || name.startsWith('xmlns')) continue;
      const own = name === 'xlink:href' ? this.address(element.name, value) : NAMES.has(name) ? this.names(value, part) : value;
      if (own !== null) attributes[name] = own;
    }
    const leadsNowhere = element.attributes['xlink:href'] !== undefined && attributes['xlink:href'] === undefined;
    if (!leadsNowhere) return el(element.name, attributes, inside);
    // What is linked stays; what would be fetched from elsewhere does not.
    return element.name === 'text:a' ? el('text:span', {}, inside) : element.name === 'draw:a' ? el('draw:g', {}, inside) : null;
  }

  /** What pages of the original stand on: for the parts of the other document, in the places where these have such. */
  get fonts(): Xml[] {
    const { content, styles } = this.original;
    const seen = new Set<string>();
    return [styles, content].flatMap((root) =>
      childrenOf(childOf(root, 'office:font-face-decls')).flatMap((face) => {
        const name = nameOf(face);
        if (name === undefined || seen.has(name)) return [];
        seen.add(name);
        return this.defined({ ...face, children: [] }, 'styles');
      }),
    );
  }
  get named(): Xml[] {
    return childrenOf(childOf(this.original.styles, 'office:styles'))
      .filter((s) => nameOf(s) !== undefined)
      .flatMap((s) => this.defined(this.withDefaults(s), 'styles'));
  }
  singleOf(part: Part): Xml[] {
    // A flat file has them for both.
    const from = this.isFlat ? 'content' : part;
    return childrenOf(childOf(this.original[from], 'office:automatic-styles')).flatMap((s) => this.defined(this.withDefaults(s), from));
  }
  get masters(): Xml[] {
    const part = this.isFlat ? 'content' : 'styles';
    return childrenOf(childOf(this.original.styles, 'office:master-styles'), 'style:master-page').flatMap((m) => this.defined(m, part));
  }
  get declarations(): Xml[] {
    const body = childOf(childOf(this.original.content, 'office:body'), 'office:presentation');
    return DECLARED.flatMap((name) => childrenOf(body, name).flatMap((d) => this.defined(d, 'content')));
  }
  /** Names of layers that things may lie on. */
  get layers(): string[] {
    const set = childOf(childOf(this.original.styles, 'office:master-styles'), 'draw:layer-set');
    return childrenOf(set, 'draw:layer').flatMap((l) => l.attributes['draw:name'] ?? []);
  }
  /** Files that what was written leads to. */
  get files(): OdfFile[] {
    return [...this.wanted.values()];
  }

  /** A definition under its new name; what it is called for people stays. */
  private defined(element: XmlElement, part: Part): Xml[] {
    const attribute = NAMED_BY.find((a) => element.attributes[a] !== undefined);
    const name = attribute && element.attributes[attribute];
    if (name === undefined) return [];
    const people: Record<string, string> = element.name === 'style:style' && this.shared.has(name) ? { 'style:display-name': name } : {};
    const xml = this.xml({ ...element, attributes: { ...people, ...element.attributes, [attribute!]: this.name(name, part) } }, part);
    return xml === null ? [] : [xml];
  }

  private name(name: string, part: Part): string {
    if (this.single[part].has(name)) return part === 'content' ? `oc_${name}` : `om_${name}`;
    return `o_${name}`;
  }

  /** Names as they are in the other document; null where nothing is called so. */
  private names(value: string, part: Part): string | null {
    const known = value
      .split(/\s+/)
      // Definitions have their new names already.
      .flatMap((n) => (this.single[part].has(n) || this.shared.has(n) ? [this.name(n, part)] : /^o[cm]?_/.test(n) ? [n] : []));
    return known.length ? known.join(' ') : null;
  }

  /**
   * A style of shapes that is based on none has in it what holds in its document where no style says otherwise (16.4), and says of
   * the rest that it is as usual: here something else holds. Paragraphs look as their shapes do.
   */
  private withDefaults(style: XmlElement): XmlElement {
    const family = style.attributes['style:family'] ?? '';
    if (style.name !== 'style:style' || !/^(graphic|presentation)$/.test(family)) return style;
    if (style.attributes['style:parent-style-name'] !== undefined) return style;
    const base = this.defaults.get(family) ?? this.defaults.get('graphic');
    const own = [...childrenOf(style)];
    for (const group of [...childrenOf(base), ...USUAL]) {
      const at = own.findIndex((o) => o.name === group.name);
      if (at < 0) own.push(group);
      else {
        const same = own[at]!;
        const isSaid = USUAL.includes(group) && SAID[group.name]!.some((a) => same.attributes[a] !== undefined);
        const more = childrenOf(group).filter((c) => !childrenOf(same).some((d) => d.name === c.name));
        const attributes = isSaid ? same.attributes : { ...group.attributes, ...same.attributes };
        own[at] = { ...same, attributes, children: [...same.children, ...more] };
      }
    }
    return { ...style, children: own };
  }

  /** Where something leads: inside its package, with what lies there, on a page, or out by an address that is safe. */
  private address(element: string, href: string): string | null {
    const path = href.replace(/^\.\//, '');
    const { files, mediaTypes } = this.original;
    const inside = this.filesAt(href);
    for (const file of inside) this.wanted.set(file, { path: file, mediaType: mediaTypes.get(file) ?? '', content: files.get(file)! });
    const folder = inside.length ? mediaTypes.get(`${path}/`) : undefined;
    if (folder !== undefined) this.wanted.set(`${path}/`, { path: `${path}/`, mediaType: folder, content: new Uint8Array() });
    return this.leadsSomewhere(element, href) ? href : null;
  }

  private leadsSomewhere(element: string, href: string): boolean {
    if (href.startsWith('#') || this.filesAt(href).length) return true;
    return /^(text:a|draw:a|presentation:event-listener)$/.test(element) && isSafeAddress(href);
  }

  private filesAt(href: string): string[] {
    const path = href.replace(/^\.\//, '');
    const { files } = this.original;
    if (files.has(path)) return [path];
    return href.startsWith('#') ? [] : [...files.keys()].filter((f) => f.startsWith(`${path}/`) && !PROGRAMS.test(f));
  }
}

/** By what attribute a definition is named. */
const NAMED_BY = ['style:name', 'draw:name', 'presentation:name', 'table:name'];
const nameOf = ({ attributes }: XmlElement): string | undefined => {
  const by = NAMED_BY.find((a) => attributes[a] !== undefined);
  return by === undefined ? undefined : attributes[by];
};

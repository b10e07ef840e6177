import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { readPart } from '../../packages/officeParts.ts';
import { unzip } from '../../packages/unzip.ts';

/** Attributes of the standard’s own, by their prefixes; others are passed over by whoever does not know them (part 1, 3.17). */
const OURS = /^(office|style|text|table|draw|presentation|fo|svg|smil|anim|dr3d|form|xlink|number):/;
/** Those that name something that stands elsewhere. */
const NAMES =
  /^((draw|presentation|text|table|style):(style-name|class-names)|draw:(text-style-name|fill-(gradient|hatch|image)-name|opacity-name|marker-(start|end)|stroke-dash|master-page-name)|style:(parent|next|list|page-layout|data|apply|font|percentage-data)(-style)?-name(-asian|-complex)?|style:font-name(-asian|-complex)?|table:(default-cell-style-name|template-name)|presentation:(presentation-page-layout-name|use-(header|footer|date-time)-name)|text:(visited|citation)-style-name|draw:stroke-dash-names)$/;
const CALLED = ['style:name', 'style:display-name', 'draw:name', 'presentation:name', 'table:name'];

/** A document of which pages are compared, with all that they stand on. */
class Side {
  private readonly defined = new Map<string, { scope: string; node: Node }[]>();
  private readonly defaults = new Map<string, Node>();
  private readonly known = new Map<string, string>();

  constructor(
    readonly content: Node | undefined,
    styles: Node | undefined,
    readonly files: ReadonlyMap<string, Uint8Array>,
    /** Whether styles that are based on none are to be told with what holds in their document where none says otherwise. */
    private readonly foldsDefaults: boolean,
  ) {
    const take = (group: Node | undefined, scope: string): void => {
      for (const d of group?.children ?? []) {
        if (d.name === 'style:default-style') this.defaults.set(d.attributes['style:family'] ?? '', d);
        for (const by of CALLED) {
          const name = d.attributes[by];
          if (name !== undefined) this.defined.set(name, [...(this.defined.get(name) ?? []), { scope, node: d }]);
        }
      }
    };
    take(child(styles, 'office:styles'), '');
    take(child(styles, 'office:master-styles'), '');
    take(child(styles, 'office:font-face-decls'), '');
    take(child(content, 'office:font-face-decls'), '');
    take(child(styles, 'office:automatic-styles'), 'styles');
    take(child(content, 'office:automatic-styles'), 'content');
    take(child(child(content, 'office:body'), 'office:presentation'), '');
  }

  /** An element as text: what it names is told by what that is. */
  told(node: Node, scope: 'content' | 'styles', depth = 0): string {
    if (depth > 60) return '…';
    const attributes = Object.entries(node.attributes)
      .filter(([name]) => OURS.test(name) && !CALLED.includes(name))
      .flatMap(([name, value]) => {
        if (!NAMES.test(name)) return [`${name}=${name === 'xlink:href' ? this.address(value) : value}`];
        // What nothing is called by says nothing.
        const told = value.split(/\s+/).flatMap((v) => this.definition(v, scope, depth) ?? []);
        return told.length ? [`${name}=${told.join(' ')}`] : [];
      })
      .sort();
    const inside = (node.content ?? []).map((c) => (typeof c === 'string' ? c : OURS.test(c.name) ? this.told(c, scope, depth + 1) : ''));
    return `<${node.name} ${attributes.join(' ')}>${inside.join('')}</>`;
  }

  /** Whatever is called so, that of its own part first. */
  private definition(name: string, scope: 'content' | 'styles', depth: number): string | null {
    const all = this.defined.get(name) ?? [];
    const found = all.find((d) => d.scope === scope) ?? all.find((d) => d.scope === '');
    if (!found) return null;
    const key = `${found.scope} ${name}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    this.known.set(key, '↻');
    const told = this.told(this.withDefaults(found.node), found.scope === 'content' ? 'content' : 'styles', depth + 1);
    this.known.set(key, told);
    return told;
  }

  /** Shapes without a parent look as their document says of all (16.4); of what it does not say, lines and colours are as usual. */
  private withDefaults(style: Node): Node {
    const family = style.attributes['style:family'] ?? '';
    if (!this.foldsDefaults || style.name !== 'style:style' || style.attributes['style:parent-style-name'] !== undefined) return style;
    if (family !== 'graphic' && family !== 'presentation') return style;
    const base = this.defaults.get(family) ?? this.defaults.get('graphic');
    const groups = new Map(style.children.map((g) => [g.name, g]));
    for (const under of base?.children ?? []) {
      const own = groups.get(under.name);
      const more = under.children.filter((c) => !own?.children.some((d) => d.name === c.name));
      const children = [...(own?.children ?? []), ...more];
      groups.set(under.name, { ...under, attributes: { ...under.attributes, ...own?.attributes }, children, content: children });
    }
    const usual = (name: string, known: readonly string[], attribute: string, value: string): void => {
      const own = groups.get(name) ?? { name, local: '', uri: '', text: '', attributes: {}, children: [], content: [] };
      if (known.some((k) => own.attributes[k] !== undefined)) return;
      groups.set(name, { ...own, attributes: { ...own.attributes, [attribute]: value } });
    };
    usual('style:paragraph-properties', ['fo:line-height', 'style:line-height-at-least'], 'fo:line-height', 'normal');
    usual('style:text-properties', ['fo:color', 'style:use-window-font-color'], 'style:use-window-font-color', 'true');
    const all = [...groups.values()];
    return { ...style, children: all, content: all };
  }

  /** A file of the package is told by its bytes. */
  private address(href: string): string {
    const path = href.replace(/^\.\//, '');
    const bytes = this.files.get(path) ?? this.files.get(`${path}/content.xml`);
    return bytes ? `file of ${bytes.length}: ${Buffer.from(bytes.subarray(0, 64)).toString('base64')}` : href;
  }
}

const sideOf = async (bytes: Uint8Array, isFlat: boolean, folds: boolean): Promise<Side> => {
  if (isFlat) {
    const root = readPart(new TextDecoder().decode(bytes));
    return new Side(root, root, new Map(), folds);
  }
  const files = await unzip(bytes);
  const part = (path: string): Node | undefined => (files.has(path) ? readPart(new TextDecoder().decode(files.get(path))) : undefined);
  return new Side(part('content.xml'), part('styles.xml'), files, folds);
};

/**
 * Which slides of a presentation are the same as pages of another document: everything on them, and all that they stand on there.
 * `pages`: for each, its place among the slides and the way to its element in the original, by indexes from the root down.
 */
export async function samePages(
  original: { bytes: Uint8Array; isFlat: boolean },
  result: Uint8Array,
  pages: readonly { slide: number; path: string }[],
): Promise<boolean[]> {
  const [was, is] = await Promise.all([sideOf(original.bytes, original.isFlat, true), sideOf(result, false, false)]);
  const slides = childrenOf(child(child(is.content, 'office:body'), 'office:presentation'), 'draw:page');
  return pages.map(({ slide, path }) => {
    let at = was.content;
    for (const index of path.split('/').filter(Boolean)) at = at?.children[Number(index)];
    const now = slides[slide];
    return !!at && !!now && was.told(at, 'content') === is.told(now, 'content');
  });
}

import { unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';

/**
 * Rules of OpenDocument 1.3 (OASIS; part 2 for packages, part 3 for what stands in them; by memory) that presentations and text documents must keep,
 * written from the standard, not from the writer.
 */

interface Element {
  name: string;
  attributes: Record<string, string>;
  children: Element[];
}

function parse(xml: string): Element {
  const parser = new SaxesParser({ xmlns: true });
  const root: Element = { name: '', attributes: {}, children: [] };
  const open = [root];
  parser.on('error', (e) => {
    throw e;
  });
  parser.on('opentag', (t) => {
    const attributes = Object.fromEntries(Object.values(t.attributes).map((a) => [a.name, a.value]));
    const e: Element = { name: t.name, attributes, children: [] };
    open.at(-1)!.children.push(e);
    open.push(e);
  });
  parser.on('closetag', () => void open.pop());
  parser.write(xml).close();
  return root.children[0]!;
}

function* elements(e: Element): Generator<Element> {
  yield e;
  for (const c of e.children) yield* elements(c);
}

const TEXT = ['text:p', 'text:h', 'text:list', 'table:table', 'text:section'];
const INLINE = [
  'text:span',
  'text:a',
  'text:s',
  'text:tab',
  'text:line-break',
  'text:note',
  'text:ruby',
  'text:page-number',
  'text:placeholder',
  'text:page-count',
  'text:title',
  'text:bookmark',
  'text:bookmark-start',
  'text:bookmark-end',
  'text:bookmark-ref',
  'draw:frame',
];
/** What can be anchored in a paragraph beside (6.1.1, 10.4.12). */
const SHAPES = ['draw:frame', 'draw:path', 'draw:control', 'draw:rect', 'draw:custom-shape', 'draw:g'];
/** What may stand in these. */
const INSIDE: Record<string, string[]> = {
  'draw:text-box': [...TEXT, 'draw:frame'],
  'text:p': [...INLINE, ...SHAPES, 'draw:a'],
  'draw:a': SHAPES,
  'draw:path': ['svg:title', 'svg:desc', 'office:event-listeners', 'text:p', 'text:list'],
  'text:span': INLINE,
  'text:a': [...INLINE, 'office:event-listeners'],
  'text:list': ['text:list-header', 'text:list-item'],
  'text:list-item': ['text:p', 'text:h', 'text:list', 'text:number'],
  'table:table-row': ['table:table-cell', 'table:covered-table-cell'],
  'table:table-cell': TEXT,
  'table:table-header-rows': ['table:table-row'],
  'office:presentation': ['draw:page', 'presentation:settings'],
  'draw:page': [
    'office:forms',
    'draw:frame',
    'draw:path',
    'draw:g',
    'draw:control',
    'draw:rect',
    'draw:custom-shape',
    'presentation:notes',
  ],
  'draw:frame': ['draw:text-box', 'draw:image', 'draw:plugin', 'table:table', 'office:event-listeners', 'svg:title', 'svg:desc'],
};
const LENGTH = /^-?\d+(\.\d+)?(pt|cm|mm|in)$/;
const COLOUR = /^#[0-9a-fA-F]{6}$/;
const VALUES: Record<string, RegExp> = {
  'svg:x': LENGTH,
  'svg:y': LENGTH,
  'svg:width': LENGTH,
  'svg:height': LENGTH,
  'fo:color': COLOUR,
  'draw:fill-color': COLOUR,
  'svg:stroke-color': COLOUR,
  'fo:font-size': /^\d+(\.\d+)?(pt|%)$/,
  'draw:fill': /^(none|solid|gradient|hatch|bitmap)$/,
  'draw:stroke': /^(none|solid|dash)$/,
  'xml:id': /^[A-Za-z_][\w.-]*$/,
  'draw:opacity': /^\d+(\.\d+)?%$/,
  'presentation:transition-speed': /^(slow|medium|fast)$/,
  'draw:z-index': /^\d+$/,
  'text:anchor-type': /^(page|frame|paragraph|char|as-char)$/,
  'style:page-number': /^(auto|\d+)$/,
  'style:horizontal-pos': /^(from-left|left|center|right|from-inside|inside|outside)$/,
  'style:vertical-pos': /^(from-top|top|middle|bottom|below)$/,
  'style:text-position': /^(super|sub|-?\d+(\.\d+)?%)( \d+(\.\d+)?%)?$/,
};

/** All that is wrong with a package by these rules. */
export function faultsOfOdf(bytes: Uint8Array): string[] {
  const faults: string[] = [];
  const files = unzipSync(bytes);
  const text = (path: string): string => new TextDecoder('utf-8', { fatal: true }).decode(files[path]);
  // Part 2, 3.3: the media type comes first, and is stored: its bytes can be read at a fixed place.
  if (Object.keys(files)[0] !== 'mimetype') faults.push('the media type does not come first');
  if (new TextDecoder().decode(bytes.subarray(38, 38 + text('mimetype').length)) !== text('mimetype'))
    faults.push('the media type is packed');
  const parts = new Map<string, Element>();
  for (const path of Object.keys(files))
    if (path.endsWith('.xml'))
      try {
        parts.set(path, parse(text(path)));
      } catch (error) {
        faults.push(`${path}: ${(error as Error).message}`);
      }
  for (const path of ['content.xml', 'styles.xml', 'META-INF/manifest.xml']) if (!parts.has(path)) faults.push(`${path} is missing`);
  const entries = [...elements(parts.get('META-INF/manifest.xml')!)].filter((e) => e.name === 'manifest:file-entry');
  const listed = new Map(entries.map((e) => [e.attributes['manifest:full-path']!, e.attributes['manifest:media-type']!]));
  if (listed.get('/') !== text('mimetype')) faults.push('the manifest names another media type');
  for (const path of Object.keys(files))
    if (path !== 'mimetype' && !path.startsWith('META-INF/') && !listed.has(path)) faults.push(`${path} is not listed`);
  for (const path of listed.keys()) if (!path.endsWith('/') && !files[path]) faults.push(`${path} is listed, and not there`);

  const named = stylesIn([...elements(parts.get('styles.xml')!)].filter((e) => e.name === 'office:styles'));
  for (const path of ['styles.xml', 'content.xml']) {
    const root = parts.get(path)!;
    const ids = new Set<string>();
    const own = stylesIn([...elements(root)].filter((e) => e.name === 'office:automatic-styles'));
    for (const key of own) if (named.has(key) && !key.startsWith('drawing-page')) faults.push(`${path}: ${key} is named twice`);
    for (const e of elements(root)) {
      const inside = INSIDE[e.name];
      for (const c of e.children) if (inside && !inside.includes(c.name)) faults.push(`${path}: ${c.name} may not stand in ${e.name}`);
      for (const [name, value] of Object.entries(e.attributes))
        if (VALUES[name] && !VALUES[name].test(value)) faults.push(`${path}: ${e.name} ${name}="${value}"`);
      const id = e.attributes['xml:id'];
      if (id !== undefined && ids.has(id)) faults.push(`${path}: ${id} stands twice`);
      if (id !== undefined) ids.add(id);
      const family = { 'text:p': 'paragraph', 'text:span': 'text', 'table:table-cell': 'table-cell', 'draw:page': 'drawing-page' }[e.name];
      const style = e.attributes['text:style-name'] ?? e.attributes['table:style-name'] ?? e.attributes['draw:style-name'];
      const key = family ?? (e.name.startsWith('draw:') && e.name !== 'draw:page' ? 'graphic' : undefined);
      if (key && style !== undefined && !own.has(`${key} ${style}`) && !named.has(`${key} ${style}`))
        faults.push(`${path}: ${e.name} has the style ${style}, which is not there`);
      const href = e.attributes['xlink:href'];
      if (href && !/^(https?:|mailto:|#|\.\.\/)/.test(href) && !files[href])
        faults.push(`${path}: ${e.name} leads to ${href}, which is not there`);
      if (e.name === 'table:table') checkTable(e, (what) => faults.push(`${path}: ${what}`));
    }
  }
  // 19.837: names of places are theirs alone; a beginning has its end.
  const placesOf = (kind: string): string[] =>
    [...elements(parts.get('content.xml')!)].flatMap((e) => (e.name === kind ? [e.attributes['text:name']!] : []));
  const begun = [...placesOf('text:bookmark'), ...placesOf('text:bookmark-start')];
  for (const name of new Set(begun)) if (begun.filter((n) => n === name).length > 1) faults.push(`${name} is the name of several places`);
  if (placesOf('text:bookmark-start').sort().join() !== placesOf('text:bookmark-end').sort().join())
    faults.push('places do not end as they begin');
  const places = new Set(
    [...elements(parts.get('content.xml')!)].flatMap((e) => (e.name === 'text:bookmark' ? [e.attributes['text:name']!] : [])),
  );
  for (const e of elements(parts.get('content.xml')!))
    if (e.name === 'text:bookmark-ref' && !places.has(e.attributes['text:ref-name']!))
      faults.push(`a reference is to ${e.attributes['text:ref-name']}, which is not there`);
  const masters = new Set(
    [...elements(parts.get('styles.xml')!)].flatMap((e) => (e.name === 'style:master-page' ? [e.attributes['style:name']!] : [])),
  );
  const layouts = new Set(
    [...elements(parts.get('styles.xml')!)].flatMap((e) => (e.name === 'style:page-layout' ? [e.attributes['style:name']!] : [])),
  );
  for (const e of elements(parts.get('content.xml')!))
    if (e.name === 'draw:page' && !masters.has(e.attributes['draw:master-page-name']!))
      faults.push(`${e.attributes['draw:name']} has no master page`);
  // 19.749: style:master-page-name; 10.4.3: a box goes on in another of its document.
  const everything = [...elements(parts.get('content.xml')!), ...elements(parts.get('styles.xml')!)];
  for (const e of everything) {
    const master = e.attributes['style:master-page-name'];
    if (master && !masters.has(master)) faults.push(`${e.attributes['style:name']} asks for the master page ${master}`);
    if (e.name === 'style:master-page' && !layouts.has(e.attributes['style:page-layout-name']!))
      faults.push(`${e.attributes['style:name']} has no page layout`);
  }
  const boxes = everything.filter((e) => e.name === 'draw:frame');
  for (const { attributes, children } of boxes) {
    const next = children.find((c) => c.name === 'draw:text-box')?.attributes['draw:chain-next-name'];
    const found = boxes.filter((b) => b.attributes['draw:name'] === next);
    if (next !== undefined && found.length !== 1) faults.push(`${attributes['draw:name']} goes on in ${found.length} boxes`);
    // What a text has come from elsewhere is in no box that has its own.
    if (next !== undefined && found[0]?.children[0]!.children.length) faults.push(`${next} has text of its own`);
  }
  if (text('mimetype').includes('.text'))
    for (const p of everything.filter((e) => e.name === 'text:p'))
      for (const c of p.children.flatMap((n) => (n.name === 'draw:a' ? n.children : [n])))
        if (c.name.startsWith('draw:') && c.attributes['text:anchor-type'] === undefined) faults.push(`${c.name} is anchored nowhere`);
  return faults;
}

const stylesIn = (groups: readonly Element[]): Set<string> =>
  new Set(
    groups.flatMap((g) =>
      g.children.flatMap((s) => (s.name === 'style:style' ? [`${s.attributes['style:family']} ${s.attributes['style:name']}`] : [])),
    ),
  );

/** Rows have a cell, or a covered one, for each column (9.1.4, 9.1.5). */
function checkTable(table: Element, say: (what: string) => void): void {
  const columns = table.children.filter((c) => c.name === 'table:table-column').length;
  const rows = table.children.flatMap((c) => (c.name === 'table:table-row' ? [c] : c.name === 'table:table-header-rows' ? c.children : []));
  for (const row of rows)
    if (row.children.length !== columns) say(`a row of ${row.children.length} cells in a table of ${columns} columns`);
}

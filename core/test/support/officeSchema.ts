import { unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';

/**
 * Rules of ISO/IEC 29500 that all office files must keep, written from the standard’s schemas (dml-main.xsd, transitional; by memory), not
 * from the writers: content types and relationships (29500-2), DrawingML; which elements may stand in which, in which order and how often.
 */

export interface Element {
  name: string;
  attributes: Record<string, string>;
  children: Element[];
  text: string;
}

const URIS: Record<string, string> = {
  'http://schemas.openxmlformats.org/wordprocessingml/2006/main': 'w',
  'http://schemas.openxmlformats.org/officeDocument/2006/relationships': 'r',
  'http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing': 'wp',
  'http://schemas.openxmlformats.org/drawingml/2006/main': 'a',
  'http://schemas.openxmlformats.org/drawingml/2006/picture': 'pic',
  'http://schemas.openxmlformats.org/markup-compatibility/2006': 'mc',
  'http://schemas.microsoft.com/office/word/2010/wordml': 'w14',
  'http://schemas.microsoft.com/office/word/2010/wordprocessingShape': 'wps',
  'http://schemas.microsoft.com/office/drawing/2017/decorative': 'adec',
  'urn:schemas-microsoft-com:vml': 'v',
  'http://schemas.microsoft.com/office/drawing/2016/SVG/main': 'asvg',
  'http://schemas.openxmlformats.org/package/2006/relationships': 'rel',
  'http://schemas.openxmlformats.org/package/2006/content-types': 'ct',
  'http://schemas.openxmlformats.org/package/2006/metadata/core-properties': 'cp',
  'http://purl.org/dc/elements/1.1/': 'dc',
  'http://purl.org/dc/terms/': 'dcterms',
  'http://schemas.openxmlformats.org/officeDocument/2006/customXml': 'ds',
  'http://schemas.openxmlformats.org/presentationml/2006/main': 'p',
  'http://schemas.microsoft.com/office/powerpoint/2010/main': 'p14',
  'http://schemas.microsoft.com/office/drawing/2018/hyperlinkcolor': 'ahyp',
  'http://www.w3.org/XML/1998/namespace': 'xml',
};

function parse(xml: string): Element {
  const parser = new SaxesParser({ xmlns: true });
  const root: Element = { name: '', attributes: {}, children: [], text: '' };
  const open = [root];
  const name = (uri: string, local: string): string => (uri ? `${URIS[uri] ?? uri}:${local}` : local);
  parser.on('error', (e) => {
    throw e;
  });
  parser.on('opentag', (t) => {
    const e: Element = { name: name(t.uri, t.local), attributes: {}, children: [], text: '' };
    for (const a of Object.values(t.attributes))
      if (a.prefix !== 'xmlns' && a.name !== 'xmlns') e.attributes[name(a.uri, a.local)] = a.value;
    open.at(-1)!.children.push(e);
    open.push(e);
  });
  parser.on('text', (t) => (open.at(-1)!.text += t));
  parser.on('closetag', () => void open.pop());
  parser.write(xml).close();
  return root.children[0]!;
}

/** What a language of the standard asks for. */
export interface Rules {
  /** Where its parts are in the package. */
  folder: string;
  /** Children in their order; `*` may stand several times, all others once. */
  sequences: Record<string, string[]>;
  /** What may stand in these in any order. */
  choices: Record<string, string[]>;
  /** What must stand first, where it stands at all. */
  first: ReadonlySet<string>;
  /** What must not be missing. */
  required: Record<string, string[]>;
  /** Values of attributes by their elements. */
  values: Record<string, Record<string, RegExp>>;
  /** Media types of parts, by the kind of relationship that leads to them. */
  parts: Record<string, string>;
  more?(e: Element, say: (what: string) => void): void;
}

const DRAWING: Record<string, string[]> = {
  'a:graphic': ['a:graphicData'],
  // CT_Transform2D, and CT_GroupTransform2D with the space of the members.
  'a:xfrm': ['a:off', 'a:ext', 'a:chOff', 'a:chExt'],
  'a:ln': ['a:noFill', 'a:solidFill', 'a:gradFill', 'a:prstDash', 'a:custDash', 'a:round', 'a:bevel', 'a:miter', 'a:headEnd', 'a:tailEnd'],
  'a:gradFill': ['a:gsLst', 'a:lin', 'a:path'],
  'a:custGeom': ['a:avLst', 'a:gdLst', 'a:ahLst', 'a:cxnLst', 'a:rect', 'a:pathLst'],
  'a:prstGeom': ['a:avLst'],
  'a:effectLst': ['a:blur', 'a:fillOverlay', 'a:glow', 'a:innerShdw', 'a:outerShdw', 'a:prstShdw', 'a:reflection', 'a:softEdge'],
  'a:srgbClr': ['a:alpha'],
  'a:blip': ['a:alphaModFix', 'a:extLst'],
};
const DRAWING_VALUES: Record<string, Record<string, RegExp>> = {
  'a:gs': { pos: /^(\d{1,5}|100000)$/ },
  'a:lin': { ang: /^\d{1,8}$/ },
  'a:alpha': { val: /^(\d{1,5}|100000)$/ },
  'a:srgbClr': { val: /^[0-9A-F]{6}$/ },
  'a:ext': { cx: /^\d+$/, cy: /^\d+$/ },
};

function checkElement(e: Element, path: string, rules: Rules, say: (what: string) => void): void {
  const at = `${path}/${e.name}`;
  const order = rules.sequences[e.name] ?? DRAWING[e.name];
  if (order?.length) {
    let last = -1;
    const seen = new Set<string>();
    for (const { name } of e.children) {
      const index = order.findIndex((o) => o === name || o === `${name}*`);
      if (index < 0) say(`${at}: ${name} may not stand in it`);
      else if (index < last) say(`${at}: ${name} stands too late`);
      else if (seen.has(name) && !order[index]!.endsWith('*')) say(`${at}: ${name} stands twice`);
      last = Math.max(last, index);
      seen.add(name);
    }
  } else if (rules.choices[e.name]) {
    e.children.forEach(({ name }, i) => {
      if (!rules.choices[e.name]!.includes(name)) say(`${at}: ${name} may not stand in it`);
      if (rules.first.has(name) && i > 0) say(`${at}: ${name} does not stand first`);
    });
  }
  for (const name of rules.required[e.name] ?? []) if (!e.children.some((c) => c.name === name)) say(`${at}: has no ${name}`);
  rules.more?.(e, (what) => say(`${at}: ${what}`));
  for (const [name, value] of Object.entries(e.attributes)) {
    const rule = (rules.values[e.name] ?? DRAWING_VALUES[e.name])?.[name];
    if (rule && !rule.test(value)) say(`${at}: ${name}="${value}"`);
  }
  for (const c of e.children) checkElement(c, at, rules, say);
}

/** `newest`: without what stands there for older programs (29500-3, 9.3): it says the same again. */
export function* elements(e: Element, newest = false): Generator<Element> {
  yield e;
  for (const c of e.children) if (!newest || c.name !== 'mc:Fallback') yield* elements(c, newest);
}

/** A package that was opened to be checked, and what is wrong with it as one. */
export interface Opened {
  xml: Map<string, Element>;
  faults: string[];
}

/** Opens a package and checks it and its parts by these rules. */
export function openChecked(bytes: Uint8Array, rules: Rules): Opened {
  const faults: string[] = [];
  const files = unzipSync(bytes);
  const xml = new Map<string, Element>();
  for (const [path, content] of Object.entries(files))
    if (/\.(xml|rels)$/.test(path))
      try {
        xml.set(path, parse(new TextDecoder('utf-8', { fatal: true }).decode(content)));
      } catch (error) {
        faults.push(`${path}: ${(error as Error).message}`);
      }
  if (Object.keys(files)[0] !== '[Content_Types].xml') faults.push('the content types do not come first');
  const types = xml.get('[Content_Types].xml')!;
  const defaults = new Map(
    types.children.filter((c) => c.name === 'ct:Default').map((c) => [c.attributes['Extension']!, c.attributes['ContentType']!]),
  );
  const overrides = new Map(
    types.children.filter((c) => c.name === 'ct:Override').map((c) => [c.attributes['PartName']!.slice(1), c.attributes['ContentType']!]),
  );
  for (const path of Object.keys(files))
    if (path !== '[Content_Types].xml' && !overrides.has(path) && !defaults.has(path.split('.').pop()!))
      faults.push(`${path}: has no content type`);
  for (const path of overrides.keys()) if (!files[path]) faults.push(`${path}: is listed, and not there`);
  const referred = new Set<string>();
  for (const [path, root] of xml) {
    if (!path.endsWith('.rels')) continue;
    const source = path.replace(/_rels\/([^/]*)\.rels$/, '$1');
    if (source && !files[source]) faults.push(`${path}: belongs to nothing`);
    const ids = new Set<string>();
    for (const { attributes: a } of root.children) {
      if (ids.has(a['Id']!)) faults.push(`${path}: ${a['Id']} stands twice`);
      ids.add(a['Id']!);
      if (a['TargetMode'] === 'External') continue;
      const target = new URL(a['Target']!, `http://x/${source}`).pathname.slice(1);
      referred.add(target);
      if (!files[target]) faults.push(`${path}: leads to ${target}, which is not there`);
      const type = rules.parts[a['Type']!.split('/').pop()!];
      if (type && !new RegExp(`\\.(${type})\\+xml$`).test(overrides.get(target) ?? ''))
        faults.push(`${target}: is ${overrides.get(target)}, not ${type}`);
    }
    // Every relationship that a part speaks of is there.
    const speaks = xml.get(source);
    if (speaks)
      for (const e of elements(speaks))
        for (const [name, value] of Object.entries(e.attributes))
          if (name.startsWith('r:') && value !== '' && !ids.has(value))
            faults.push(`${source}: ${e.name} speaks of ${value}, which is not there`);
  }
  for (const [path, root] of xml)
    if (path.startsWith(rules.folder) && !path.endsWith('.rels')) checkElement(root, path, rules, (what) => faults.push(what));
  for (const path of Object.keys(files))
    if (!/\.rels$|^\[Content/.test(path) && !referred.has(path)) faults.push(`${path}: nothing leads to it`);
  return { xml, faults };
}

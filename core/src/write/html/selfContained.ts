import { generate, parse as parseCss, walk } from 'css-tree';
import { parse, serialize } from 'parse5';
import type { DefaultTreeAdapterMap } from 'parse5';

type Node = DefaultTreeAdapterMap['node'];
type Element = DefaultTreeAdapterMap['element'];

export interface BundledFile {
  mediaType: string;
  bytes: Uint8Array;
}

/** Attributes by which a page loads files (HTML, 4.2.4 and 4.8), by element. */
const LOADS: Record<string, string> = {
  script: 'src',
  img: 'src',
  audio: 'src',
  video: 'src',
  source: 'src',
  track: 'src',
  image: 'href',
};

const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const dataUri = ({ mediaType, bytes }: BundledFile): string => `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`;

/** The file that an address in another leads to; null where it leads outside. */
function fileAt(from: string, address: string): string | null {
  if (/^([a-z][a-z0-9+.-]*:|\/\/|#|$)/i.test(address)) return null;
  try {
    const { pathname, origin } = new URL(address, `https://bundle.example/${from}`);
    return origin === 'https://bundle.example' ? decodeURIComponent(pathname).slice(1) : null;
  } catch {
    return null;
  }
}

/**
 * A page with all that it loads inside it, so that it is whole in a frame that has no origin: from a disk, browsers let such a
 * frame load nothing. What its scripts load later, and pages that it leads to, stay where they are.
 */
export function selfContained(files: ReadonlyMap<string, BundledFile>, entry: string): string | null {
  const page = files.get(entry);
  if (!page) return null;
  const document = parse(text(page.bytes));
  const visit = (node: Node): void => {
    if ('tagName' in node) bringIn(node, entry, files);
    if ('childNodes' in node) node.childNodes.forEach(visit);
    if ('content' in node) visit(node.content);
  };
  visit(document);
  return serialize(document);
}

function bringIn(e: Element, entry: string, files: ReadonlyMap<string, BundledFile>): void {
  const found = (address: string | undefined): BundledFile | undefined =>
    files.get((address !== undefined && fileAt(entry, address)) || '');
  const value = (name: string): string | undefined => e.attrs.find((a) => a.name === name)?.value;
  const set = (name: string, to: string): void => e.attrs.filter((a) => a.name === name).forEach((a) => (a.value = to));
  if (e.tagName === 'link' && /\bstylesheet\b/.test(value('rel') ?? '')) {
    const sheet = found(value('href'));
    const path = fileAt(entry, value('href') ?? '');
    if (!sheet || path === null) return;
    e.tagName = e.nodeName = 'style';
    e.attrs = e.attrs.filter((a) => a.name === 'media');
    e.childNodes = [{ nodeName: '#text', value: sheetWithFiles(text(sheet.bytes), path, files), parentNode: e }];
    return;
  }
  const name = LOADS[e.tagName];
  for (const attribute of [name, e.tagName === 'video' ? 'poster' : undefined]) {
    const file = attribute && found(value(attribute));
    if (file && attribute) set(attribute, dataUri(file));
  }
  // Waiting for what is here already would only make it flicker.
  if (e.tagName === 'img') e.attrs = e.attrs.filter((a) => a.name !== 'srcset' && a.name !== 'loading');
}

/** A style sheet with what it loads inside it: pictures, fonts, and other sheets (CSS Cascade 5, 2). */
function sheetWithFiles(css: string, path: string, files: ReadonlyMap<string, BundledFile>, depth = 0): string {
  const tree = parseCss(css);
  walk(tree, (node, item, list) => {
    if (node.type === 'Atrule' && node.name === 'import' && item && list && depth < 8) {
      const [, address] = /^(?:url\()?["']?([^"')]+)/.exec(node.prelude ? generate(node.prelude) : '') ?? [];
      const at = address === undefined ? null : fileAt(path, address);
      const sheet = files.get(at ?? '');
      if (sheet && at !== null)
        list.replace(item, list.createItem({ type: 'Raw', value: sheetWithFiles(text(sheet.bytes), at, files, depth + 1) }));
    } else if (node.type === 'Url') {
      const file = files.get(fileAt(path, node.value) ?? '');
      if (file) node.value = dataUri(file);
    }
  });
  return generate(tree).replaceAll('</', '<\\/');
}

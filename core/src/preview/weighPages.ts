import { parse } from 'parse5';
import type { DefaultTreeAdapterMap } from 'parse5';
import { pagesOf, printedNumber } from '../folio/traverse.ts';
import type { Folio } from '../folio/folio.ts';
import type { Weights } from './weights.ts';

type Node = DefaultTreeAdapterMap['node'];
type Element = DefaultTreeAdapterMap['element'];
type Kind = Exclude<keyof Weights['pages'][number]['now'], 'text'>;

interface WeighedFile {
  path: string;
  mediaType: string;
  bytes: number;
}

const kindOf = ({ mediaType, path }: WeighedFile): Kind =>
  path.startsWith('embeds/')
    ? 'embeds'
    : /^(audio|video)\//.test(mediaType)
      ? 'played'
      : mediaType.startsWith('image/')
        ? 'pictures'
        : 'files';

const none = (): Weights['pages'][number]['now'] => ({ text: 0, pictures: 0, played: 0, embeds: 0, files: 0 });

/**
 * Where a web edition's bytes are, as its finished files say: for each page what comes with it first, then what belongs to no
 * page. Of a picture in several widths the widest counts. `was` is the size of the document's own files that a page shows.
 */
export function weightsOf(folio: Folio, files: readonly WeighedFile[], texts: readonly { path: string; text: string }[]): Weights {
  const byPath = new Map(files.map((f) => [f.path, f]));
  const labels = new Map(pagesOf(folio).map((p) => [p.page.id, printedNumber(p)]));
  const counted = new Set<string>();
  const pages: { order: number; page: Weights['pages'][number] }[] = [];
  let shell = 0;
  for (const { text } of texts) {
    let inPages = 0;
    for (const section of sectionsOf(parse(text, { sourceCodeLocationInfo: true }))) {
      const id = attribute(section, 'data-page')!;
      const now = none();
      const location = section.sourceCodeLocation;
      now.text = location ? Buffer.byteLength(text.slice(location.startOffset, location.endOffset)) : 0;
      inPages += now.text;
      let was = 0;
      for (const path of loadedBy(section)) {
        const file = byPath.get(path);
        if (!file || counted.has(path)) continue;
        counted.add(path);
        now[kindOf(file)] += file.bytes;
        was += originalOf(folio, path);
      }
      pages.push({
        order: Number(/(?<!\d)\d+$/.exec(attribute(section, 'id') ?? '')?.[0]),
        page: { page: id, label: labels.get(id) ?? '', now, was },
      });
    }
    shell += Buffer.byteLength(text) - inPages;
  }
  const shared = { fonts: 0, program: 0, style: 0, around: shell };
  let spare = 0;
  for (const file of files) {
    if (counted.has(file.path) || /^[^/]+\.html$/.test(file.path)) continue;
    if (file.path.startsWith('fonts/')) shared.fonts += file.bytes;
    else if (file.path.endsWith('.js')) shared.program += file.bytes;
    else if (file.path.endsWith('.css')) shared.style += file.bytes;
    else spare += file.bytes;
  }
  pages.sort((a, b) => a.order - b.order);
  return { pages: pages.map((p) => p.page), shared, spare };
}

/** The document's file behind a file of the result, by its id, which is in its name. */
function originalOf(folio: Folio, path: string): number {
  const id = /^(?:pictures|media|embeds)\/(.+)-[0-9a-f]{12}\.[^./]+$/.exec(path)?.[1];
  return (id !== undefined && folio.head.media[id]?.bytes) || 0;
}

const attribute = (e: Element, name: string): string | undefined => e.attrs.find((a) => a.name === name)?.value;

function* elementsOf(node: Node): Generator<Element> {
  if ('tagName' in node) yield node;
  if ('childNodes' in node) for (const child of node.childNodes) yield* elementsOf(child);
}

function* sectionsOf(document: Node): Generator<Element> {
  for (const e of elementsOf(document)) if (e.tagName === 'section' && attribute(e, 'data-page') !== undefined) yield e;
}

/** Files that a page's elements load, by their paths in the result. */
function* loadedBy(section: Element): Generator<string> {
  for (const e of elementsOf(section))
    for (const name of ['src', 'poster', 'data-src']) {
      const value = attribute(e, name);
      if (value !== undefined && !/^[a-z][a-z0-9+.-]*:/i.test(value)) yield decodeURIComponent(value.split(/[?#]/)[0]!);
    }
}

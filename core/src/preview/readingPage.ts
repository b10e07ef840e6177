import { serializeOuter } from 'parse5';
import { attribute, elementsOf, parsePage } from '../ledger/html/dom.ts';
import { readPackage } from '../ledger/book/openBook.ts';
import { resolve } from '../ledger/html/address.ts';

/** How a reader has set a device: what a reading view imitates. */
export interface ReadingLook {
  /** Size of text against the device’s own, in percent. */
  size: number;
  night: boolean;
  typeface: 'own' | 'serif' | 'sans';
  /** Margins left and right, in em. */
  margin: number;
}

/** The whole of a book as one page to scroll through, set as a reader would; `at` gives the address of one of its files. */
export function readingPage(files: ReadonlyMap<string, Uint8Array>, look: ReadingLook, at: (path: string) => string): string {
  const decode = (path: string): string => new TextDecoder().decode(files.get(path) ?? new Uint8Array());
  const root = /full-path="([^"]+)"/.exec(decode('META-INF/container.xml'))?.[1] ?? '';
  const { items, spine, language } = readPackage(decode(root));
  const inBook = (href: string): string => resolve(root, href)!.file;
  const sheets = [...items.values()]
    .filter((i) => i.mediaType === 'text/css')
    .map((i) => `<link rel="stylesheet" href="${at(inBook(i.href))}">`);
  const parts = spine.flatMap((entry) => {
    const item = items.get(entry.item);
    return item ? [sectionOf(inBook(item.href), decode(inBook(item.href)), at)] : [];
  });
  return `<!doctype html><html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">${sheets.join('')}<style>${lookCss(look)}</style></head><body>${parts.join('\n')}</body></html>`;
}

/** The body of one file, with its pictures addressed and its links leading inside the page. */
function sectionOf(path: string, xhtml: string, at: (path: string) => string): string {
  const document = parsePage(xhtml.replace(/^<\?xml[^>]*\?>/, ''));
  const body = [...elementsOf(document)].find((e) => e.tagName === 'body');
  if (!body) return '';
  for (const e of elementsOf(body)) {
    for (const a of e.attrs) {
      const target = a.name === 'src' || a.name === 'href' ? resolve(path, a.value) : null;
      if (target && a.name === 'src') a.value = at(target.file);
      if (target && a.name === 'href') a.value = target.id ? `#${target.id}` : '#';
    }
    if (e.tagName === 'script') e.attrs = [{ name: 'type', value: 'text/plain' }];
    if (attribute(e, 'href') !== undefined && !attribute(e, 'href')!.startsWith('#')) e.attrs.push({ name: 'rel', value: 'noreferrer' });
  }
  return `<div class="file">${body.childNodes.map((n) => serializeOuter(n)).join('')}</div>`;
}

/** What a reader’s settings do to any book (common practice of reading programs): size on the root, everything else over the book’s own. */
function lookCss({ size, night, typeface, margin }: ReadingLook): string {
  const face = typeface === 'own' ? '' : `body, body * { font-family: ${typeface === 'serif' ? 'serif' : 'sans-serif'} !important; }`;
  const colours = night
    ? 'html, body { background: #14181b; color: #d8d6cf; } body * { color: inherit !important; background-color: transparent !important; }'
    : '';
  return `html { font-size: ${size}%; } body { max-width: none; margin: 0; padding: 1em ${margin}em 4em; } .file + .file { margin-top: 3em; } ${face} ${colours}`;
}

import { SaxesParser } from 'saxes';
import yauzl from 'yauzl';
import type { PicturePort } from '../../ports/ports.ts';
import { StyleRules } from '../html/css.ts';
import { attribute, elementsOf, parsePage, textOf } from '../html/dom.ts';
import type { Element } from '../html/dom.ts';
import { observeTexts, resolve } from './observeTexts.ts';
import type { ObservedFlow } from './observedFlow.ts';

/** All files of a zip, in their order. */
export async function unzip(bytes: Uint8Array): Promise<Map<string, Uint8Array>> {
  const zip = await new Promise<yauzl.ZipFile>((done, fail) =>
    yauzl.fromBuffer(Buffer.from(bytes), { lazyEntries: true }, (error, z) => (error ? fail(error) : done(z))),
  );
  const files = new Map<string, Uint8Array>();
  await new Promise<void>((done, fail) => {
    zip.on('error', fail).on('end', done);
    zip.on('entry', (entry: yauzl.Entry) =>
      zip.openReadStream(entry, (error, stream) => {
        if (error) return fail(error);
        const chunks: Buffer[] = [];
        stream.on('data', (c: Buffer) => chunks.push(c)).on('error', fail);
        stream.on('end', () => {
          files.set(entry.fileName, new Uint8Array(Buffer.concat(chunks)));
          zip.readEntry();
        });
      }),
    );
    zip.readEntry();
  });
  return files;
}

interface PackageItem {
  href: string;
  mediaType: string;
  properties: string;
}
interface PackageFacts {
  title: string;
  language: string;
  items: Map<string, PackageItem>;
  spine: string[];
  meta: Map<string, string[]>;
}

/** What a package document says (EPUB 3.3, section 5). Throws where it is no well-formed XML. */
export function readPackage(xml: string): PackageFacts {
  const facts: PackageFacts = { title: '', language: '', items: new Map(), spine: [], meta: new Map() };
  const parser = new SaxesParser({ xmlns: true });
  let text = '';
  let property = '';
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ local, attributes: a }) => {
    text = '';
    const get = (name: string): string => Object.values(a).find((x) => x.local === name)?.value ?? '';
    if (local === 'item') facts.items.set(get('id'), { href: get('href'), mediaType: get('media-type'), properties: get('properties') });
    if (local === 'itemref') facts.spine.push(get('idref'));
    property = local === 'meta' ? get('property') : '';
  });
  parser.on('text', (t) => (text += t));
  parser.on('closetag', ({ local }) => {
    if (local === 'title') facts.title ||= text;
    if (local === 'language') facts.language ||= text;
    if (local === 'meta' && property) facts.meta.set(property, [...(facts.meta.get(property) ?? []), text]);
  });
  parser.write(xml).close();
  return facts;
}

function malformed(xml: string): string | null {
  try {
    const parser = new SaxesParser({ xmlns: true });
    parser.on('error', (error) => {
      throw error;
    });
    parser.write(xml).close();
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : 'it is no XML';
  }
}

/** Reads an e-book back from its bytes alone. */
export async function observeEpub(bytes: Uint8Array, pictures: PicturePort): Promise<ObservedFlow> {
  const files = await unzip(bytes);
  const decode = (path: string): string => new TextDecoder().decode(files.get(path) ?? new Uint8Array());
  const container = decode('META-INF/container.xml');
  const root = /full-path="([^"]+)"/.exec(container)?.[1] ?? '';
  const facts = readPackage(decode(root));
  const inBook = (href: string): string => resolve(root, href)!.file;
  const listed = new Map([...facts.items.values()].map((i) => [inBook(i.href), i]));
  const problems: ObservedFlow['problems'] = [];
  if ([...files.keys()][0] !== 'mimetype' || decode('mimetype') !== 'application/epub+zip')
    problems.push({ file: 'mimetype', says: 'the book does not begin with its media type' });
  for (const path of files.keys())
    if (path !== 'mimetype' && path !== root && !path.startsWith('META-INF/') && !listed.has(path))
      problems.push({ file: path, says: 'it is not listed' });
  for (const path of listed.keys()) if (!files.has(path)) problems.push({ file: path, says: 'it is listed, and not there' });
  for (const [path, item] of listed) {
    const wrong = item.mediaType === 'application/xhtml+xml' && files.has(path) ? malformed(decode(path)) : null;
    if (wrong) problems.push({ file: path, says: wrong });
  }
  const spine = facts.spine.flatMap((id) => (facts.items.has(id) ? [inBook(facts.items.get(id)!.href)] : []));
  const isCover = (path: string): boolean =>
    [...elementsOf(parsePage(decode(path)))].some((e) => e.tagName === 'section' && attribute(e, 'epub:type') === 'cover');
  const texts = spine.filter((p) => !isCover(p)).map((path) => ({ path, text: decode(path) }));
  const read = await observeTexts(texts, { file: async (path) => files.get(path), pictures });
  const nav = [...listed].find(([, i]) => i.properties.split(' ').includes('nav'))?.[0];
  return {
    title: facts.title,
    language: facts.language,
    ...navigationOf(nav, nav === undefined ? '' : decode(nav), texts),
    ...read,
    embedded: [...listed].filter(([, i]) => i.mediaType === 'text/css').flatMap(([path]) => facesOf(decode(path), path, files)),
    problems: [...problems, ...read.problems],
  };
}

function facesOf(css: string, path: string, files: ReadonlyMap<string, Uint8Array>): ObservedFlow['embedded'] {
  const rules = new StyleRules();
  rules.add(css);
  return rules.fontFaces
    .filter((f) => files.has(resolve(path, f.source)!.file))
    .map((f) => ({ family: f.family, weight: f.weight ?? '400', style: f.style ?? 'normal' }));
}

function navigationOf(
  path: string | undefined,
  html: string,
  texts: readonly { path: string; text: string }[],
): Pick<ObservedFlow, 'outline' | 'pages'> {
  const ids = new Map(texts.map((t) => [t.path, new Set([...elementsOf(parsePage(t.text))].flatMap((e) => attribute(e, 'id') ?? []))]));
  const links = (type: string): { text: string; found: boolean }[] => {
    const nav = [...elementsOf(parsePage(html))].find((e) => e.tagName === 'nav' && attribute(e, 'epub:type') === type);
    return (nav ? [...elementsOf(nav)] : [])
      .filter((e): e is Element => e.tagName === 'a')
      .map((e) => {
        const target = path === undefined ? null : resolve(path, attribute(e, 'href') ?? '');
        const found = target !== null && (target.id ? (ids.get(target.file)?.has(target.id) ?? false) : ids.has(target.file));
        return { text: textOf(e), found };
      });
  };
  return { outline: links('toc'), pages: links('page-list').map(({ text, found }) => ({ number: text, found })) };
}

import type { FontFace } from '../../compose/fontFace.ts';
import { escape } from '../../paint/svg/markup.ts';
import { Cancelled } from '../../ports/ports.ts';
import { shortHash } from '../assets/encodePictures.ts';
import { webFont } from '../assets/subsetFont.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { BookPack } from './packBook.ts';
import { CONTAINER, identifierOf, packageDocument } from './packageDocument.ts';
import type { ManifestItem, PackageFacts } from './packageDocument.ts';
import { encryptionXml, scramble } from './scramble.ts';

const ROOT = 'EPUB/';
const XHTML = 'application/xhtml+xml';

/** An e-book while its files are put together. Paths are those inside the book’s own folder; each file is packed as it is added. */
export class Book {
  private readonly pack = new BookPack();
  private readonly items: ManifestItem[] = [];
  private readonly spine: { id: string; properties?: string | undefined }[] = [];
  private readonly scrambled: string[] = [];

  private constructor(private readonly job: WriteJob<unknown>) {}

  /** The book as one file; `fill` adds what is in it and then says what it is. */
  static file(job: WriteJob<unknown>, fill: (book: Book) => Promise<PackageFacts>): OutputFile {
    const book = new Book(job);
    const body = book.pack.filled(async () => {
      await book.pack.add('META-INF/container.xml', CONTAINER, false);
      await book.end(await fill(book));
    });
    return { path: 'book.epub', mediaType: 'application/epub+zip', body };
  }

  /** A file of the book; gives the id by which the package knows it. */
  async add(path: string, mediaType: string, bytes: Uint8Array | string, properties?: string): Promise<string> {
    if (this.job.signal.aborted) throw new Cancelled();
    const id = `i-${path.replace(/[^A-Za-z0-9]+/g, '-')}`;
    this.items.push({ id, href: path, mediaType, ...(properties && { properties }) });
    await this.pack.add(ROOT + path, bytes, /^(image\/(png|jpeg)|font\/woff2)$/.test(mediaType));
    return id;
  }

  /** A text of the book, read after those that were added before. */
  async addText(path: string, text: string, about: { item?: string | undefined; spine?: string | undefined } = {}): Promise<void> {
    this.spine.push({ id: await this.add(path, XHTML, text, about.item), properties: about.spine });
  }

  async addNavigation(text: string): Promise<void> {
    await this.add('nav.xhtml', XHTML, text, 'nav');
  }

  /** Typefaces cut down to what is set in them, scrambled where asked; those that must not be embedded are left to the reader. */
  async addFonts(
    faces: Iterable<readonly [FontFace, ReadonlySet<number>]>,
    scrambles: boolean,
  ): Promise<{ face: FontFace; path: string }[]> {
    const out: { face: FontFace; path: string }[] = [];
    const fonts = await Promise.all(
      [...faces]
        .filter(([face]) => face.mayEmbed)
        .map(async ([face, characters]) => ({ face, bytes: await webFont(face, characters, this.job.derived) })),
    );
    for (const { face, bytes } of fonts) {
      const path = `fonts/${face.key.replace(/[^A-Za-z0-9]+/g, '-')}-${shortHash(bytes)}.woff2`;
      if (out.some((f) => f.path === path)) continue;
      await this.add(path, 'font/woff2', scrambles ? scramble(bytes, identifierOf(this.job.folio)) : bytes);
      if (scrambles) this.scrambled.push(ROOT + path);
      out.push({ face, path });
    }
    return out;
  }

  private async end(about: PackageFacts): Promise<void> {
    const { items, spine, scrambled, job } = this;
    if (scrambled.length) await this.pack.add('META-INF/encryption.xml', encryptionXml(scrambled), false);
    await this.pack.add(`${ROOT}package.opf`, packageDocument(job.folio, { ...about, modified: job.clock(), items, spine }), false);
  }
}

/** A text of a book: an XHTML document with the book’s style sheet. `head` is more of its head, `body` its body element. */
export const bookText = (o: {
  language: string;
  title: string;
  head?: string;
  body: string;
}): string => `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${escape(o.language)}" xml:lang="${escape(o.language)}">
<head>
<meta charset="utf-8"/>
<title>${escape(o.title)}</title>
${o.head ?? ''}<link rel="stylesheet" type="text/css" href="style.css"/>
</head>
${o.body}
</html>
`;

import type { FontFace } from '../../../compose/fontFace.ts';
import { escape } from '../../../paint/svg/markup.ts';
import { Cancelled } from '../../../ports/ports.ts';
import { shortHash } from '../encodePictures.ts';
import { webFont } from '../subsetFont.ts';
import type { OutputFile, WriteJob } from '../../writer.ts';
import { packBook } from './packBook.ts';
import type { BookFile } from './packBook.ts';
import { CONTAINER, identifierOf, packageDocument } from './packageDocument.ts';
import type { ManifestItem, PackageFacts } from './packageDocument.ts';
import { encryptionXml, scramble } from './scramble.ts';

const ROOT = 'EPUB/';
const XHTML = 'application/xhtml+xml';

/** An e-book while its files are put together. Paths are those inside the book’s own folder. */
export class Book {
  private readonly files: BookFile[] = [];
  private readonly items: ManifestItem[] = [];
  private readonly spine: { id: string; properties?: string | undefined }[] = [];
  private readonly scrambled: string[] = [];

  constructor(private readonly job: WriteJob<unknown>) {}

  /** A file of the book; gives the id by which the package knows it. */
  add(path: string, mediaType: string, bytes: BookFile['bytes'], properties?: string): string {
    const id = `i-${path.replace(/[^A-Za-z0-9]+/g, '-')}`;
    this.files.push({ path: ROOT + path, bytes, stored: /^(image\/(png|jpeg)|font\/woff2)$/.test(mediaType) });
    this.items.push({ id, href: path, mediaType, ...(properties && { properties }) });
    return id;
  }

  /** A text of the book, read after those that were added before. */
  addText(path: string, text: string, about: { item?: string | undefined; spine?: string | undefined } = {}): void {
    this.spine.push({ id: this.add(path, XHTML, text, about.item), properties: about.spine });
  }

  addNavigation(text: string): void {
    this.add('nav.xhtml', XHTML, text, 'nav');
  }

  /** Typefaces cut down to what is set in them, scrambled where asked; those that must not be embedded are left to the reader. */
  async addFonts(
    faces: Iterable<readonly [FontFace, ReadonlySet<number>]>,
    scrambles: boolean,
  ): Promise<{ face: FontFace; path: string }[]> {
    const out: { face: FontFace; path: string }[] = [];
    for (const [face, characters] of faces) {
      if (!face.mayEmbed) continue;
      if (this.job.signal.aborted) throw new Cancelled();
      const bytes = await webFont(face, characters, this.job.derived);
      const path = `fonts/${face.key.replace(/[^A-Za-z0-9]+/g, '-')}-${shortHash(bytes)}.woff2`;
      if (out.some((f) => f.path === path)) continue;
      this.add(path, 'font/woff2', scrambles ? scramble(bytes, identifierOf(this.job.folio)) : bytes);
      if (scrambles) this.scrambled.push(ROOT + path);
      out.push({ face, path });
    }
    return out;
  }

  /** The book as one file. */
  packed(about: PackageFacts): OutputFile {
    const book = packageDocument(this.job.folio, { ...about, modified: this.job.clock(), items: this.items, spine: this.spine });
    const { scrambled } = this;
    const files: BookFile[] = [
      { path: 'META-INF/container.xml', bytes: CONTAINER },
      ...(scrambled.length ? [{ path: 'META-INF/encryption.xml', bytes: encryptionXml(scrambled) }] : []),
      { path: `${ROOT}package.opf`, bytes: book },
      ...this.files,
    ];
    return { path: 'book.epub', mediaType: 'application/epub+zip', body: packBook(files) };
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

import yazl from 'yazl';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';

const RELATIONSHIPS = 'http://schemas.openxmlformats.org/package/2006/relationships';
const CONTENT_TYPES = 'http://schemas.openxmlformats.org/package/2006/content-types';
const RELATIONSHIP_FILE = 'application/vnd.openxmlformats-package.relationships+xml';

/** The roots of names of relationships (ISO/IEC 29500-1, annexes A and 15; 29500-2 for those of the package). */
export const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
export const PACKAGE = 'http://schemas.openxmlformats.org/package/2006/relationships/metadata';

interface Relationship {
  id: string;
  type: string;
  target: string;
  external: boolean;
}
type Content = string | Uint8Array;

/** A part of the package: its content may be made last, when all that it relates to is known. */
export class Part {
  readonly relationships: Relationship[] = [];
  private readonly known = new Map<string, string>();
  content: Content = '';

  constructor(
    /** From the root of the package, without a slash before it. */
    readonly path: string,
    readonly contentType: string,
  ) {}

  /** Says that this part uses another; gives the id by which it speaks of it. Equal ones are said once. */
  relate(type: string, target: Part): string {
    return this.related(type, relative(this.path, target.path), false);
  }

  /** The same for something outside the package. */
  relateOutside(type: string, address: string): string {
    return this.related(type, address, true);
  }

  private related(type: string, target: string, external: boolean): string {
    const key = `${type} ${target} ${external}`;
    let id = this.known.get(key);
    if (id === undefined) {
      this.known.set(key, (id = `rId${this.relationships.length + 1}`));
      this.relationships.push({ id, type, target, external });
    }
    return id;
  }
}

/** Media types by the endings of files that many parts have (29500-2, 10.1.2.2: defaults). */
const DEFAULTS: Record<string, string> = {
  rels: RELATIONSHIP_FILE,
  xml: 'application/xml',
  png: 'image/png',
  jpg: 'image/jpeg',
  tiff: 'image/tiff',
  svg: 'image/svg+xml',
};
const ending = (path: string): string => path.slice(path.lastIndexOf('.') + 1).toLowerCase();
/** Parts whose bytes are packed already. */
const STORED = /\.(png|jpe?g|mp[34]|m4a|mov|ogg|webm)$/;

/** A package of parts that are related to each other (Open Packaging Conventions, ISO/IEC 29500-2), as a zip; equal parts make equal bytes. */
export class OfficePackage {
  private readonly parts = new Map<string, Part>();
  private readonly root = new Part('', '');

  add(path: string, contentType: string, content: Content = ''): Part {
    const part = new Part(path, contentType);
    part.content = content;
    this.parts.set(path, part);
    return part;
  }

  /** A part that is there already, such as a picture that several pages show. */
  get(path: string): Part | undefined {
    return this.parts.get(path);
  }

  relate(type: string, part: Part): string {
    return this.root.relate(type, part);
  }

  /** The zip: the content types first, then every part with its relationships. It is made once: what is in it is let go of. */
  async *bytes(): AsyncGenerator<Uint8Array> {
    const zip = new yazl.ZipFile();
    const time = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };
    const add = (path: string, content: Content): void => {
      const bytes =
        typeof content === 'string' ? Buffer.from(content) : Buffer.from(content.buffer, content.byteOffset, content.byteLength);
      zip.addBuffer(bytes, path, { ...time, compress: !STORED.test(path) });
    };
    add('[Content_Types].xml', xmlFile(this.contentTypes()));
    add('_rels/.rels', xmlFile(relationshipsOf(this.root)));
    for (const part of this.parts.values()) {
      add(part.path, part.content);
      part.content = '';
      if (!part.relationships.length) continue;
      const at = part.path.lastIndexOf('/') + 1;
      add(`${part.path.slice(0, at)}_rels/${part.path.slice(at)}.rels`, xmlFile(relationshipsOf(part)));
    }
    zip.end();
    yield* zip.outputStream as AsyncIterable<Uint8Array>;
  }

  private contentTypes(): Xml {
    const used = new Set(['rels', 'xml', ...[...this.parts.keys()].map(ending)]);
    const defaults = Object.entries(DEFAULTS).filter(([e]) => used.has(e));
    const others = [...this.parts.values()].filter((p) => DEFAULTS[ending(p.path)] !== p.contentType);
    return el(
      'Types',
      { xmlns: CONTENT_TYPES },
      defaults.map(([Extension, ContentType]) => el('Default', { Extension, ContentType })),
      others.map((p) => el('Override', { PartName: `/${p.path}`, ContentType: p.contentType })),
    );
  }
}

const relationshipsOf = ({ relationships }: Part): Xml =>
  el(
    'Relationships',
    { xmlns: RELATIONSHIPS },
    relationships.map((r) =>
      el('Relationship', { Id: r.id, Type: r.type, Target: r.target, TargetMode: r.external ? 'External' : undefined }),
    ),
  );

/** A path seen from the folder of another. */
function relative(from: string, to: string): string {
  const [a, b] = [from.split('/').slice(0, -1), to.split('/')];
  let same = 0;
  while (same < a.length && same < b.length - 1 && a[same] === b[same]) same++;
  return [...a.slice(same).map(() => '..'), ...b.slice(same)].join('/');
}

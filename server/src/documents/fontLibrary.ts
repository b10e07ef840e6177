import { randomUUID } from 'node:crypto';
import type { Folio, LibraryFont } from '@elastic-folio/core';
import { wantedFamilies } from '@elastic-folio/core/compose';
import { FolioError } from '@elastic-folio/core/node';
import type { FileBlobs } from '@elastic-folio/core/node';
import type { FontFacts } from '@elastic-folio/core/read';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';

/** Fonts that a user has added: every document that names their families is set with them. */
export class FontLibrary {
  constructor(
    private readonly db: Db,
    private readonly blobs: FileBlobs,
  ) {}

  async list(): Promise<LibraryFont[]> {
    const rows = await this.db.query<Row>('SELECT * FROM fonts WHERE owner = $1 ORDER BY lower(family), weight, style, added_at', [OWNER]);
    return rows.map((r) => ({
      id: r.id,
      family: r.family,
      weight: r.weight,
      style: r.style,
      fullName: r.full_name,
      mayEmbed: r.may_embed,
      sha256: r.sha256,
      bytes: Number(r.bytes),
    }));
  }

  /** Adds a font; the same file again changes nothing, another file of the same face takes the place of the old one. */
  async add(facts: FontFacts): Promise<LibraryFont> {
    const { sha256, bytes } = await this.blobs.put(facts.bytes);
    const { family, weight, style } = facts;
    await this.db.transaction(async (query) => {
      await query('DELETE FROM fonts WHERE owner = $1 AND lower(family) = lower($2) AND weight = $3 AND style = $4', [
        OWNER,
        family,
        weight,
        style,
      ]);
      await query(
        'INSERT INTO fonts (id, owner, family, weight, style, full_name, may_embed, sha256, bytes) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT (owner, sha256) DO NOTHING',
        [`library-${randomUUID()}`, OWNER, family, weight, style, facts.fullName, facts.mayEmbed, sha256, bytes],
      );
    });
    return (await this.list()).find((f) => f.sha256 === sha256)!;
  }

  async remove(id: string): Promise<void> {
    const [gone] = await this.db.query('DELETE FROM fonts WHERE owner = $1 AND id = $2 RETURNING id', [OWNER, id]);
    if (!gone) throw new FolioError('font.none', 'This font is not in the library any more.', 'Reload the page.');
  }
}

/** Those fonts of a library that a document's text may be set with. */
export function usedOf(library: readonly LibraryFont[], head: Folio['head']): LibraryFont[] {
  const wanted = wantedFamilies(head);
  return library.filter((f) => wanted.has(f.family.toLowerCase()));
}

interface Row {
  id: string;
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  full_name: string;
  may_embed: boolean;
  sha256: string;
  bytes: string;
}

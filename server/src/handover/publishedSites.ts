import { randomUUID } from 'node:crypto';
import { cp, mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { slugOf } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import type { PublishedSite, Run } from '@elastic-folio/core/api';
import type { Db } from '../database/db.ts';
import { diskFault } from '../diskFaults.ts';

const OWNER = 'desk';
/** Letters that a host's name has of a title: part of a name has at most 63 (RFC 1123), and may be counted on. */
const LONGEST_NAME = 50;

interface SiteRow {
  id: string;
  folio: string;
  recipe: string;
  name: string;
  shown: number | null;
}
interface VersionRow {
  site: string;
  number: number;
  run: string;
  bytes: number | string;
  files: number;
  secure: string[];
  at: Date | string;
}

/** The simulated web host: results that were published, version by version. What was published stays, whatever becomes of the run. */
export class PublishedSites {
  constructor(
    private readonly db: Db,
    private readonly folder: string,
    private readonly results: string,
  ) {}

  async ofDocument(folio: string): Promise<PublishedSite[]> {
    const sites = await this.db.query<SiteRow>('SELECT * FROM published_sites WHERE owner = $1 AND folio = $2 ORDER BY created_at', [
      OWNER,
      folio,
    ]);
    return Promise.all(sites.map((s) => this.described(s)));
  }

  async get(id: string): Promise<PublishedSite> {
    const [site] = await this.db.query<SiteRow>('SELECT * FROM published_sites WHERE owner = $1 AND id = $2', [OWNER, id]);
    if (!site) throw new FolioError('site.none', 'This site is not on the host any more.', 'Reload the page.');
    return this.described(site);
  }

  /** Puts a finished result on the host as a new version, and shows it; `called` becomes the site's address if it is new. */
  async publish(run: Run, called: string, secure: string[]): Promise<PublishedSite> {
    const known = await this.db.query<SiteRow>('SELECT * FROM published_sites WHERE folio = $1 AND recipe = $2', [run.folio, run.recipe]);
    const site = known[0] ?? (await this.create(run, called));
    const [last] = await this.db.query<{ n: number }>('SELECT coalesce(max(number), 0)::int AS n FROM published_versions WHERE site = $1', [
      site.id,
    ]);
    const number = (last?.n ?? 0) + 1;
    // All files are there before anybody is shown one of them.
    const home = this.versionFolder(site.id, number);
    const arriving = `${home}.arriving`;
    try {
      await rm(arriving, { recursive: true, force: true });
      await mkdir(join(this.folder, site.id), { recursive: true });
      await cp(join(this.results, run.id), arriving, { recursive: true, filter: (from) => !from.endsWith('ledger.json') });
      await rm(home, { recursive: true, force: true });
      await rename(arriving, home);
    } catch (error) {
      await rm(arriving, { recursive: true, force: true });
      if (diskFault(error) === 'full')
        throw new FolioError('disk.full', 'The disk is full. What was published before is still shown.', 'Make room and publish again.');
      throw error;
    }
    await this.db.transaction(async (query) => {
      await query('INSERT INTO published_versions (site, number, run, bytes, files, secure) VALUES ($1, $2, $3, $4, $5, $6)', [
        site.id,
        number,
        run.id,
        run.files!.reduce((sum, f) => sum + f.bytes, 0),
        run.files!.length,
        JSON.stringify(secure),
      ]);
      await query('UPDATE published_sites SET shown = $2 WHERE id = $1', [site.id, number]);
    });
    return this.get(site.id);
  }

  /** Shows another version, or none. */
  async show(id: string, number: number | null): Promise<PublishedSite> {
    const site = await this.get(id);
    if (number !== null && !site.versions.some((v) => v.number === number))
      throw new FolioError('site.version', 'This version is not on the host any more.', 'Choose another one.');
    await this.db.query('UPDATE published_sites SET shown = $2 WHERE id = $1', [id, number]);
    return this.get(id);
  }

  /** Takes a site off the host, with all its versions. */
  async remove(id: string): Promise<void> {
    await this.db.query('DELETE FROM published_sites WHERE owner = $1 AND id = $2', [OWNER, id]);
    await rm(join(this.folder, id), { recursive: true, force: true });
  }

  /** The folder of what is shown under a name; null: it was taken down; undefined: there is no such site. */
  async folderShown(name: string): Promise<string | null | undefined> {
    const [site] = await this.db.query<SiteRow>('SELECT id, shown FROM published_sites WHERE name = $1', [name]);
    return site && (site.shown === null ? null : this.versionFolder(site.id, site.shown));
  }

  versionFolder(site: string, number: number): string {
    return join(this.folder, site, String(number));
  }

  private async create(run: Run, called: string): Promise<SiteRow> {
    const stem = slugOf(called, LONGEST_NAME) || 'edition';
    for (let n = 1; ; n++) {
      const [made] = await this.db.query<SiteRow>(
        'INSERT INTO published_sites (id, owner, folio, recipe, name) VALUES ($1, $2, $3, $4, $5) ON CONFLICT (name) DO NOTHING RETURNING *',
        [randomUUID(), OWNER, run.folio, run.recipe, n === 1 ? stem : `${stem}-${n}`],
      );
      if (made) return made;
    }
  }

  private async described({ id, folio, recipe, name, shown }: SiteRow): Promise<PublishedSite> {
    const versions = await this.db.query<VersionRow>('SELECT * FROM published_versions WHERE site = $1 ORDER BY number DESC', [id]);
    return {
      id,
      folio,
      recipe,
      name,
      shown,
      versions: versions.map((v) => ({
        number: v.number,
        run: v.run,
        bytes: Number(v.bytes),
        files: v.files,
        secure: v.secure,
        at: new Date(v.at).toISOString(),
      })),
    };
  }
}

import { randomUUID } from 'node:crypto';
import { RoleSet } from '@elastic-folio/core';
import { FolioError } from '@elastic-folio/core/node';
import { fromJson } from '../database/json.ts';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';

/** Sets of roles that a user keeps for all documents. */
export class RoleSets {
  constructor(private readonly db: Db) {}

  async list(): Promise<RoleSet[]> {
    const rows = await this.db.query<Row>('SELECT id, name, roles FROM role_sets WHERE owner = $1 ORDER BY lower(name), kept_at', [OWNER]);
    return rows.map(({ id, name, roles }) => RoleSet.parse({ id, name, ...(fromJson(roles) as object) }));
  }

  /** Keeps a set; one of the same name gives way to it. */
  async keep({ name, paragraph, character }: Omit<RoleSet, 'id'>): Promise<RoleSet> {
    const set: RoleSet = { id: `roles-${randomUUID()}`, name, paragraph, character };
    await this.db.transaction(async (query) => {
      await query('DELETE FROM role_sets WHERE owner = $1 AND lower(name) = lower($2)', [OWNER, name]);
      await query('INSERT INTO role_sets (id, owner, name, roles) VALUES ($1, $2, $3, $4)', [
        set.id,
        OWNER,
        name,
        JSON.stringify({ paragraph, character }),
      ]);
    });
    return set;
  }

  async remove(id: string): Promise<void> {
    const [gone] = await this.db.query('DELETE FROM role_sets WHERE owner = $1 AND id = $2 RETURNING id', [OWNER, id]);
    if (!gone) throw new FolioError('roleSet.none', 'This set is not kept any more.', 'Reload the page.');
  }
}

interface Row {
  id: string;
  name: string;
  roles: string | object;
}

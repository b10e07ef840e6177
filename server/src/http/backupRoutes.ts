import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { backupsFolder } from '../backup/dailyBackup.ts';
import { writeBackup } from '../backup/writeBackup.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

/** Everything that people have made, as one file. */
export function backupRoutes(api: Api, s: Services): void {
  api.route(
    { method: 'post', path: '/backup', says: 'Everything that people have made, as one file to be restored from' },
    async ({ res }) => {
      await mkdir(backupsFolder(s.config.data), { recursive: true });
      const work = await mkdtemp(join(backupsFolder(s.config.data), '.asked-'));
      try {
        const file = join(work, 'backup.zip');
        await writeBackup(s.db, s.config.data, file);
        res.attachment('elastic-folio-backup.zip');
        await new Promise<void>((resolve, reject) => res.sendFile(file, { dotfiles: 'allow' }, (e) => (e ? reject(e) : resolve())));
      } finally {
        await rm(work, { recursive: true, force: true });
      }
    },
  );
}

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { backUp, sizeWords } from './lib/backup.mjs';
import { backupKey } from './lib/archive.mjs';
import { withRecords } from './lib/which-records.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { main, say } from './lib/say.mjs';

/** Backs up the records that DIAL_GAUGE_DB_* name, or those of npm start; with --clinic those of a clinic of one's own. */
await main(async () => {
  needNode();
  await needDebian('mariadb-server');
  await needPackages();
  await withRecords(async ({ records, folder, serverKey }) => {
    const keyFile = process.env.DIAL_GAUGE_BACKUP_KEY_FILE ?? join(folder, 'backup.key');
    const isNew = !existsSync(keyFile);
    const key = await backupKey(keyFile, true);
    const { file, manifest } = await backUp(records, {
      folder: process.env.DIAL_GAUGE_BACKUP_FOLDER ?? join(folder, 'backups'),
      key,
      serverKey,
    });
    say(`Backed up, read into a server of its own and compared: ${sizeWords(manifest)}.\n  ${file}`);
    if (isNew) say(`A key was made for it: ${keyFile}\nKeep a copy of it elsewhere. Without it no backup opens.`);
  });
});
process.exit();

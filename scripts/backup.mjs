// npm run backup -- FILE: copies the shop into one file, also while Lambent runs.
import { join, resolve } from 'node:path';
import { checkNode, ensureBuilt, ensureInstalled, giveUp, root } from './lib.mjs';

const [file, more] = process.argv.slice(2);
if (!file || more) giveUp('Say where the backup is to go: npm run backup -- /path/to/shop-backup.tar.gz');
checkNode();
ensureInstalled();
ensureBuilt();
const { backUp } = await import('../apps/server/dist/backup/backup.js');
const dataFolder = resolve(process.env.LAMBENT_DATA ?? join(root, 'data/shop'));
try {
  const { jobs, programs, bytes } = await backUp(dataFolder, resolve(file));
  process.stdout.write(
    `${resolve(file)}: ${jobs} jobs and ${programs} programs, ${(bytes / 1e6).toFixed(1)} MB, read again and whole.\n`,
  );
} catch (error) {
  if (!error.name.endsWith('Refused')) throw error;
  giveUp(error.message);
}

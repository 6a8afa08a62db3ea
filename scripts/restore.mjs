// npm run restore -- FILE: puts a backup in the place of the shop, which is kept beside it.
import { join, resolve } from 'node:path';
import { checkNode, checkWritable, ensureBuilt, ensureInstalled, giveUp, root } from './lib.mjs';

const [file, more] = process.argv.slice(2);
if (!file || more) giveUp('Say which backup is to come back: npm run restore -- /path/to/shop-backup.tar.gz');
checkNode();
const dataFolder = resolve(process.env.LAMBENT_DATA ?? join(root, 'data/shop'));
checkWritable(dataFolder);
ensureInstalled();
ensureBuilt();
const { restore } = await import('../apps/server/dist/backup/backup.js');
try {
  const { jobs, programs, madeAt, keptIn } = await restore(resolve(file), dataFolder);
  process.stdout.write(`${dataFolder} holds the shop of ${madeAt}: ${jobs} jobs and ${programs} programs.\n`);
  if (keptIn) process.stdout.write(`What was there before is kept in ${keptIn}.\n`);
} catch (error) {
  if (!error.name.endsWith('Refused')) throw error;
  giveUp(error.message);
}

// npm start: the shop's own Lambent, on its own data folder, without the demo. The server runs in this very process, so
// that what sends it a signal, such as systemd, ends the server.
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { checkNode, checkWritable, ensureBuilt, ensureInstalled, giveUp, root } from './lib.mjs';

const [unknown] = process.argv.slice(2);
if (unknown)
  giveUp(`npm start does not know ${unknown}; it takes its settings from the environment, as docs/running.md says.`);

checkNode();
const dataFolder = resolve(process.env.LAMBENT_DATA ?? join(root, 'data/shop'));
checkWritable(dataFolder);
ensureInstalled();
ensureBuilt();
process.env.LAMBENT_DATA = dataFolder;
await import(pathToFileURL(join(root, 'apps/server/dist-program/main.js')).href);

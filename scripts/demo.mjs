// npm run demo: installs, builds and loads what is needed, starts everything, prints the address.
import { join, resolve } from 'node:path';
import { checkNode, checkWritable, emptyData, ensureBuilt, ensureInstalled, giveUp, root, startStack } from './lib.mjs';

const known = ['--fresh'];
const unknown = process.argv.slice(2).find((word) => !known.includes(word));
if (unknown) giveUp(`npm run demo does not know ${unknown}; it takes --fresh, which starts from clean demo data.`);

checkNode();
const dataFolder = resolve(process.env.LAMBENT_DATA ?? join(root, 'data/demo'));
checkWritable(dataFolder);
ensureInstalled();
ensureBuilt();
if (process.argv.includes('--fresh')) emptyData(dataFolder);

const { address, stop, children } = await startStack({ dataFolder, port: Number(process.env.LAMBENT_PORT ?? 7450) });
process.stdout.write(
  `\nLambent is open at ${address}\nThe machines are simulated, at 20 times a real one's speed. Ctrl-C stops everything.\n`,
);

children.get('server').once('exit', (code) => {
  stop();
  process.exit(code ?? 0);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, stop);

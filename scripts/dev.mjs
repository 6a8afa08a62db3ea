// npm run dev: the demo with a page that reloads live, and the types checked on every change.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { checkNode, ensureBuilt, ensureInstalled, freePort, root, startStack } from './lib.mjs';

checkNode();
ensureInstalled();
ensureBuilt();
const stack = await startStack({ dataFolder: join(root, 'data/dev'), port: 7480 });
const pagePort = await freePort(5173, 'the page');
const page = spawn('npx', ['vite', '--port', String(pagePort), '--strictPort'], {
  cwd: join(root, 'apps/web'),
  stdio: 'inherit',
  env: { ...process.env, LAMBENT_SERVER: stack.address },
});
const compiler = spawn('npx', ['tsc', '-b', '--watch', '--preserveWatchOutput'], { cwd: root, stdio: 'inherit' });
process.stdout.write(
  `\nThe page with live reload: http://127.0.0.1:${pagePort}\nAfter a change to the server, start again.\n`,
);
const stop = () => {
  stack.stop();
  page.kill();
  compiler.kill();
};
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, stop);

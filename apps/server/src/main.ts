import { isLoopback } from './common/door.ts';
import { config } from './config.ts';
import { DataFolderRefused, takeDataFolder } from './data/data-folder.ts';

/*
 * Takes the data folder before anything else is loaded: what is wrong with it is said at once.
 */
try {
  expectToken();
  takeDataFolder(config.dataFolder);
  const { serve } = await import('./serve.ts');
  await serve();
} catch (error) {
  const said = error instanceof DataFolderRefused ? error.message : String((error as Error)?.stack ?? error);
  process.stderr.write(`Lambent: ${said}\n`);
  process.exit(1);
}

/** Others on the network need a token: until there is sign-in, who can reach the server could else do everything. */
function expectToken(): void {
  const { host, token } = config;
  if (token === null ? isLoopback(host) : token.length >= 16) return;
  const why = token === null ? `LAMBENT_HOST is ${host}: others could reach it` : 'LAMBENT_TOKEN is too short';
  process.stderr.write(`Lambent: ${why}. Set LAMBENT_TOKEN to a secret of 16 characters or more, and start again.\n`);
  process.exit(1);
}

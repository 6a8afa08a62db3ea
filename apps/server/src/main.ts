import { config } from './config.ts';
import { DataFolderRefused, takeDataFolder } from './data/data-folder.ts';

/*
 * Takes the data folder before anything else is loaded: what is wrong with it is said at once.
 */
try {
  takeDataFolder(config.dataFolder);
  const { serve } = await import('./serve.ts');
  await serve();
} catch (error) {
  const said = error instanceof DataFolderRefused ? error.message : String((error as Error)?.stack ?? error);
  process.stderr.write(`Lambent: ${said}\n`);
  process.exit(1);
}

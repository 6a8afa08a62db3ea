/*
 * Looks at the configuration and takes the data folder before anything else is loaded: what is wrong is said at once.
 */
try {
  const { config } = await import('./config.ts');
  const { takeDataFolder } = await import('./data/data-folder.ts');
  takeDataFolder(config.dataFolder);
  const { serve } = await import('./serve.ts');
  await serve();
} catch (error) {
  const refused = ['ConfigRefused', 'DataFolderRefused'].includes((error as Error)?.name);
  const said = refused ? (error as Error).message : String((error as Error)?.stack ?? error);
  process.stderr.write(`Lambent: ${said}\n`);
  process.exit(1);
}

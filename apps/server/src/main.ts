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
  const offer = (error as { asksForBackup?: boolean })?.asksForBackup ? await lastBackup() : '';
  process.stderr.write(`Lambent: ${said}${offer}\n`);
  process.exit(1);
}

/** Names the last backup that can be read whole, and how it is restored; nothing is overwritten unasked. */
async function lastBackup(): Promise<string> {
  const { config } = await import('./config.ts');
  const { lastGoodBackup } = await import('./backup/kept-backups.ts');
  const file = await lastGoodBackup(config.dataFolder);
  return file
    ? ` The last good backup is ${file}; “LAMBENT_DATA=${config.dataFolder} npm run restore -- ${file}” goes back to it.`
    : ` There is no backup in ${config.dataFolder}/backups.`;
}

import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startStack } from '../scripts/lib.mjs';

/** Starts the built application on clean demo data, its machines much faster than in the demo. */
export default async function start() {
  const dataFolder = mkdtempSync(join(tmpdir(), 'lambent-e2e-'));
  const { address, stop } = await startStack({ dataFolder, port: 7600, factor: 150, quiet: true });
  process.env.LAMBENT_ADDRESS = address;
  return () => {
    stop();
    rmSync(dataFolder, { recursive: true, force: true });
  };
}

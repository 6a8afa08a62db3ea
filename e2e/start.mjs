import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startStack } from '../scripts/lib.mjs';

/**
 * Starts the built application on clean demo data, its machines much faster than in the demo. Parts of the tests that run
 * beside each other have ports of their own.
 */
export default async function start({ shard }) {
  const port = 7600 + 20 * (shard?.current ?? 0);
  const dataFolder = mkdtempSync(join(tmpdir(), 'lambent-e2e-'));
  const { address, stop } = await startStack({ dataFolder, port, factor: 150, quiet: true });
  process.env.LAMBENT_ADDRESS = address;
  return () => {
    stop();
    rmSync(dataFolder, { recursive: true, force: true });
  };
}

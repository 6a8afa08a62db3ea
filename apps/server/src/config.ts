import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../../', import.meta.url));

/** Where the server listens and what it works on; all of it can be set by the environment. */
export const config = {
  host: process.env.LAMBENT_HOST ?? '127.0.0.1',
  /** Who has it may enter. Needed where others than this machine can reach the server. */
  token: process.env.LAMBENT_TOKEN || null,
  port: Number(process.env.LAMBENT_PORT ?? 7450),
  dataFolder: resolve(process.env.LAMBENT_DATA ?? join(root, 'data')),
  /** The demo world, loaded where there is no machine yet; empty for none. */
  demoFolder: process.env.LAMBENT_DEMO ?? '',
  /** Ports of the stand-ins, over the shop's own: `wren=7451,curlew=7452`. */
  machinePorts: new Map(
    (process.env.LAMBENT_MACHINE_PORTS ?? '')
      .split(',')
      .filter(Boolean)
      .map((pair) => [pair.split('=')[0], Number(pair.split('=')[1])] as const),
  ),
  webFolder: join(root, 'apps/web/dist'),
} as const;

/** The largest document the page may send, in bytes. */
export const largestBody = 128 * 1024 * 1024;

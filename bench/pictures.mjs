// Pictures: a photo from its pixels to its moves beside the diffusion of its raw dots, and tracing.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

/** @returns times in ms, the program's size in bytes and the most memory in MB */
export function benchPictures() {
  const script = fileURLToPath(new URL('pictures-once.mjs', import.meta.url));
  return JSON.parse(execFileSync(process.execPath, ['--import', 'tsx', script], { encoding: 'utf8' }));
}

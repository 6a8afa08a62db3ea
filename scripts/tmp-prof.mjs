import { mkdtempSync, rmSync } from 'node:fs';
import { startStack } from './lib.mjs';
const { benchGaps } = await import('../bench/tmp-gaps-prof.mjs');
const dataFolder = mkdtempSync('/tmp/lambent-gaps-');
const stack = await startStack({ dataFolder, port: 7800, quiet: true });
try { await benchGaps(stack.address, process.argv[2] ?? null); } catch (e) { console.log(e.message); } finally { stack.stop(); rmSync(dataFolder, { recursive: true, force: true }); }
process.exit(0);

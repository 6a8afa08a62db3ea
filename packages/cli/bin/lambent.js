#!/usr/bin/env node
import { existsSync } from 'node:fs';

const entry = new URL('../dist-program/main.js', import.meta.url);
if (!existsSync(entry)) {
  process.stderr.write('lambent is not built yet: run `npm run build` in the project first.\n');
  process.exit(2);
}
await import(entry.href);

// npm run build: builds what is stale.
import { checkNode, ensureBuilt, ensureInstalled } from './lib.mjs';

checkNode();
ensureInstalled();
ensureBuilt({ loud: true });

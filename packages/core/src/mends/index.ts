export { type Mend, mended, mendedAll, mendedItems } from './mend.ts';

export { type Mend, mended, mendedAll } from './mend.ts';
export { mendPreview } from './preview.ts';

export { gather, gatherBy } from './gather.ts';

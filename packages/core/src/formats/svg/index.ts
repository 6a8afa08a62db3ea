export { readSvg } from './read.ts';

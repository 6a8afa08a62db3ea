export { compareLines } from './compare.ts';
export { writeDifference } from './difference-picture.ts';
export { drawnLines } from './drawn-lines.ts';

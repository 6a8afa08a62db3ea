export { mostTracedNodes, TooManyOutlines } from './trace.ts';
export { type TracedPath, tracePicture } from './trace-picture.ts';

export { mostTracedNodes, TooManyOutlines } from './trace.ts';
export { tracePicture } from './trace-picture.ts';

export { curveThrough } from './curve.ts';
export { darknessOf, histogramOf } from './luma.ts';
export { sharpenReach } from './tone.ts';
export { mostTracedNodes, TooManyOutlines, type TraceSettings, traceOutlines } from './trace/trace.ts';

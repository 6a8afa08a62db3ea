export { curveThrough } from './curve.ts';
export { darknessOf, histogramOf } from './luma.ts';
export { mostTracedNodes, TooManyOutlines, type TraceSettings, traceOutlines } from './trace/trace.ts';

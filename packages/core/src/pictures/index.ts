export { mostTracedNodes, TooManyOutlines, type TraceSettings, traceOutlines } from './trace/trace.ts';

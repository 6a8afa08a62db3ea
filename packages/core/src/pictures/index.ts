export { curveThrough } from './curve.ts';
export { darknessOf, histogramOf } from './luma.ts';
export { sharpenReach } from './tone.ts';

export { burntCurve } from './burnt-greys.ts';
export { curveThrough } from './curve.ts';
export { diffuse } from './diffusion.ts';
export { darknessOf, histogramOf } from './luma.ts';
export { cornersInOrder, NotFourCorners, straighten } from './straighten.ts';
export { sharpenReach } from './tone.ts';

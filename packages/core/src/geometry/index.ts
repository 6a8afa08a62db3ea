export { type Combining, combineOutlines } from './areas/combine.ts';
export { simplifyRing } from './areas/rings.ts';
export { type Border, type BorderSettings, borderAround, loopPlace } from './offsets/border.ts';
export type { Join } from './offsets/corner-joins.ts';
export { type OffsetSettings, offsetOutlines, plainOffset, type Side } from './offsets/offset.ts';
export { centreThrough } from './paths/arc-of.ts';
export {
  type Box,
  boxCentre,
  boxContains,
  boxesMeet,
  boxHeight,
  boxOf,
  boxWidth,
  emptyBox,
  growBox,
  isEmpty,
  transformBox,
  uniteBoxes,
} from './paths/box.ts';
export { type Corner, largestCorner, shapeCorners } from './paths/corners.ts';
export { flatten, polylineLength, signedArea } from './paths/flatten.ts';
export {
  applyTo,
  identity,
  invert,
  type Matrix,
  meanScale,
  multiply,
  type Point,
  rotation,
  scaling,
  translation,
} from './paths/matrix.ts';
export {
  addNode,
  breakAt,
  cornerNodes,
  deleteNodes,
  moveHandle,
  moveNode,
  type NodeLine,
  type NodePlace,
  nodesOf,
  pathOfNodes,
  smoothNodes,
  straightenEdges,
} from './paths/nodes.ts';
export {
  appendPath,
  emptyPath,
  nodeCount,
  type Path,
  PathBuilder,
  pathBounds,
  pathData,
  transformPath,
  Verb,
} from './paths/path.ts';
export { type Progress, partOf } from './paths/progress.ts';
export { fitPoints } from './paths/refit.ts';
export { isLine, lineSegment, pathOfSubpaths, pointAt, subpathsOf } from './paths/segments.ts';
export { distanceToLines } from './questions/distance.ts';

export { freePlace } from './free-place.ts';
export { companionsOf, itemAt, itemsWithin } from './hit.ts';
export { itemsNear } from './nearby.ts';
export { type Snap, type SnapField, type SnapKind, snapBox, snapKinds, snapPoint } from './snap.ts';
export { type EvenSpacing, evenSpacings } from './spacing.ts';

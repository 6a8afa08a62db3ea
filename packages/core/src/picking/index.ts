export { freePlace } from './free-place.ts';
export { closedGroupOf, companionsOf, itemAt, itemsWithin } from './hit.ts';
export { itemsNear } from './nearby.ts';
export { isPointKind, type Snap, type SnapField, type SnapKind, snapKinds, snapPoint } from './snap.ts';
export { snapBox } from './snap-box.ts';
export { type EvenSpacing, evenSpacings } from './spacing.ts';

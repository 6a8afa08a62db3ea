export { boltHoles, fitBolts, isCircle } from './bolts.ts';
export {
  changeTraced,
  followedPath,
  followSources,
  freshened,
  hasLive,
  offsetOf,
  outlinesOfItems,
  type StaleOutline,
  settleItems,
  staleOutline,
} from './follow.ts';
export { addHolder, type HolderWish, usualHolder } from './holder.ts';
export { burntGrowth } from './kerf.ts';
export {
  addFollowing,
  distanceFrom,
  distancesOf,
  type FollowingPlace,
  type MadeBorder,
  type MadeOffset,
  type OffsetWish,
  offsetSources,
  type SourceFate,
  wishedOffsets,
} from './offset-items.ts';
export { replacePicture } from './replace-picture.ts';
export {
  layScanCard,
  readScanCard,
  type ScanCardWish,
  scanCardLayerId,
  scanCardLayers,
} from './scan-card.ts';
export { tabPoints } from './tabs.ts';
export { kerfComb, labelHeight, pinRow, slotComb, stepsBetween, type TestPiece } from './test-pieces.ts';
export {
  addMeeting,
  followThickness,
  makeMeeting,
  slotsAmong,
  type TieChange,
  thicknessBy,
  thicknessUnder,
  tieChanges,
  tieToThickness,
  untie,
} from './ties.ts';

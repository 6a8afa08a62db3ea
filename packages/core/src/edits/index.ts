export { acceptFinding, takeBackAccepted } from './accepted.ts';
export {
  type Alignment,
  alignAsOne,
  alignItems,
  gatherThings,
  groupItems,
  lockItems,
  mirrorItems,
  type Ordering,
  orderItems,
  placeFrom,
  type Spreading,
  spreadItems,
  thingsAmong,
  transformThings,
  ungroupItems,
} from './arrange.ts';
export { addCard, addOwnRun, chooseBestCell, itemsOfCard, markCells, removeCard, setCellDarkness } from './cards.ts';
export { combineItems, isVoid, releaseCombinations } from './combination.ts';
export { cropPictures, croppedPicture, uncropPictures } from './crop.ts';
export { turnOf } from './fold.ts';
export { amend, type History, lastSteps, record, redo, startHistory, undo, weightOfEdit } from './history.ts';
export {
  addItems,
  alsoOn,
  assignPaint,
  changeItems,
  changeSetting,
  chooseLens,
  chooseVariant,
  clearSettings,
  forgetSettings,
  hideItems,
  keepSide,
  moveItems,
  pinItems,
  removeDimensions,
  removeGuide,
  removeItems,
  removeSheet,
  rotateItems,
  scaleItems,
  setDimension,
  setGuide,
  setKey,
  setMachine,
  setMark,
  setMember,
  setSheet,
  setUnit,
  transformItems,
} from './items.ts';
export { joinEnds } from './join-ends.ts';
export { keepWithin } from './keep-within.ts';
export {
  addRun,
  changeRun,
  clearNumbers,
  clearTabs,
  flipFill,
  mergeLayer,
  moveRun,
  numberItem,
  orderSteps,
  placeTabs,
  removeRun,
  setBurning,
  setLayer,
  setStart,
  switchLayer,
  unflip,
} from './layers.ts';
export { chooseDesign, removeList, setList } from './lists.ts';
export { lockedAgainst } from './locks.ts';
export { type MeetingLine, meetLines } from './meet-lines.ts';
export { itemsOffBed, ontoBed, type WayOntoBed, waysOntoBed } from './onto-bed.ts';
export { paintLike, setLineWidth } from './paints.ts';
export { arcsBack, simplifyItems } from './refit-items.ts';
export { longestName, renameThing } from './rename.ts';
export { type CopyLinks, copyItems, gridMaps, gridThatFits, releaseLinks, ringMaps } from './repeat.ts';
export {
  cutsOn,
  extendTo,
  nearestPlace,
  type OutlinePlace,
  partBetweenCuts,
  partOfSubpath,
  replaceShape,
  splitAt,
  trimAt,
  turnToPoints,
} from './reshape.ts';
export { blockPlaces, outlineSheet, outlinesAmong, straightenSheet, unblockPlaces } from './sheet-outline.ts';
export { setTone } from './tone.ts';

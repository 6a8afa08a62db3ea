export {
  addOperation,
  type BurntOperation,
  burntOperations,
  fillsAreas,
  followsLines,
  isBurnt,
  labelOperation,
  type Operation,
  operationOf,
  operations,
  separates,
} from './operations.ts';

export { axesOfSquare, type MeasuredSquare, toldPlace, truePlace } from './axes.ts';
export { type MachineDoubt, machineDoubts } from './doubts.ts';
export { type MachineFigureName, machineFigures } from './figures.ts';
export { countsDown, fromMachine, restingPlace, toMachine } from './frame.ts';
export {
  accelerationAlong,
  atWork,
  beamOf,
  bedBox,
  type Connection,
  languageOf,
  type Machine,
  type MachineKind,
  type MachineLanguage,
  machineKinds,
  machineSchema,
  type Origin,
  topSpeedOf,
  usualBuffer,
  wattsOf,
} from './machine.ts';
export { machineFromJson, NotAMachine } from './machine-json.ts';
export { type ToldDifference, type ToldFigures, toldDifferences } from './told-figures.ts';
export { usualMachine } from './usual-machine.ts';
export { type WalkShape, walkShapes } from './walk-shapes.ts';

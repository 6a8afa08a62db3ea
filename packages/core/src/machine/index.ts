export { countsDown, fromMachine, toMachine } from './frame.ts';
export { bedBox, type Machine, type Origin, wattsOf } from './machine.ts';

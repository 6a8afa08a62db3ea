/** The lines to laser machines: what a driver does, and the drivers there are. */
export * from './driver.ts';
export { StandInDriver } from './stand-in/stand-in-driver.ts';
export type { StandInOptions } from './stand-in/stand-in-options.ts';
export { standInWords } from './stand-in/stand-in-words.ts';

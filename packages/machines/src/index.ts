/** The lines to laser machines: what a driver does, and the drivers there are. */
export * from './driver.ts';
export { PlainDriver } from './plain/plain-driver.ts';
export { StandInDriver } from './stand-in/stand-in-driver.ts';
export type { StandInOptions } from './stand-in/stand-in-options.ts';
export { standInWords } from './stand-in/stand-in-words.ts';
export { type FoundPort, serialPorts, serialWire } from './wires/serial-wire.ts';
export { tcpWire } from './wires/tcp-wire.ts';
export type { Connect } from './wires/wire.ts';

export { apartReason } from './apart.ts';
export { layShared, packShared, sharedOutlines } from './lay-shared.ts';
export { mergeJobs, type SharedPart } from './merge.ts';
export { sharesOf } from './shares.ts';

export { build } from './build.ts';
export type { Builder, Built } from './builder.ts';
export type { Field } from './fields.ts';
export { builders } from './list.ts';
export { partItems } from './part-items.ts';
export { reportOfBuilt } from './report.ts';
export { inRows } from './rows.ts';

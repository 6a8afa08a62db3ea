export { askedOf, build } from './build.ts';
export type { BuildAnswer, Builder, Built, Stock } from './builder.ts';
export { type Field, type Trouble, usualNumbers } from './fields.ts';
export { followBuilt } from './follow.ts';
export { builders } from './list.ts';
export { partItems } from './part-items.ts';
export { putDown, settleParts } from './put-down.ts';
export { type BuiltFigures, reportOfBuilt } from './report.ts';
export { inRows } from './rows.ts';

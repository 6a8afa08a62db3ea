import type { Builder } from './builder.ts';
import { joinedBox } from './joined-box/joined-box.ts';
import { slottedGrid } from './slotted-grid.ts';

/** All there are; a new one is a line here. */
export const builders: readonly Builder[] = [joinedBox as unknown as Builder, slottedGrid as unknown as Builder];

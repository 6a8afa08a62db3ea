import type { Builder } from './builder.ts';
import { joinedBox } from './joined-box/joined-box.ts';

/** All there are; a new one is a line here. */
export const builders: readonly Builder[] = [joinedBox as unknown as Builder];

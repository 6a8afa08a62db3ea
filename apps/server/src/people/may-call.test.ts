import { expect, test } from '@jest/globals';
import { type Role, roles } from '@lambent/contracts';
import { type Caller, mayCall } from './may-call.ts';

test.each<[Caller, (Role | null)[]]>([
  ['manager', ['manager']],
  ['operator', ['manager', 'operator']],
  ['member', ['manager', 'operator', 'member']],
  ['everybody', ['manager', 'operator', 'member', null]],
])('what is for %s', (caller, may) => {
  expect([...roles, null].filter((role) => mayCall(role, caller))).toEqual(may);
});

import { type Role, roles } from '@lambent/contracts';
import { SetMetadata } from '@nestjs/common';

/** Who may call an endpoint: those of a role and of all roles above it; or everybody, signed in or not. */
export type Caller = Role | 'everybody';

export const mayCallKey = 'may call';

/** Declares who may call an endpoint. */
export function MayCall(caller: Caller): MethodDecorator {
  return SetMetadata(mayCallKey, caller);
}

/** Whether somebody of a role may call what is for others. @param role null for whoever is not signed in */
export function mayCall(role: Role | null, caller: Caller): boolean {
  if (caller === 'everybody') return true;
  return role !== null && roles.indexOf(role) <= roles.indexOf(caller);
}

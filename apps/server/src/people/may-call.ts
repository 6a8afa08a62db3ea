import { type Role, roles } from '@lambent/contracts';
import { applyDecorators, SetMetadata } from '@nestjs/common';
import { ApiExtension } from '@nestjs/swagger';

/** Who may call an endpoint: those of a role and of all roles above it; or everybody, signed in or not. */
export type Caller = Role | 'everybody';

export const mayCallKey = 'may call';

/** Who may call an endpoint, as it is declared. */
export interface CallRule {
  readonly caller: Caller;
  /** Whether everybody may where the shop has no manager. */
  readonly isOpen: boolean;
}

/** Declares who may call an endpoint: everybody where the shop has no manager. The API's description says so as `x-may-call`. */
export function MayCall(caller: Caller): MethodDecorator {
  return declared({ caller, isOpen: true });
}

/** Declares who may call an endpoint that asks for somebody who is signed in, whether the shop has a manager or not. */
export function MayCallSignedIn(caller: Role): MethodDecorator {
  return declared({ caller, isOpen: false });
}

function declared(rule: CallRule): MethodDecorator {
  return applyDecorators(SetMetadata(mayCallKey, rule), ApiExtension('x-may-call', rule.caller));
}

/** Whether somebody of a role may call what is for others. @param role null for whoever is not signed in */
export function mayCall(role: Role | null, caller: Caller): boolean {
  if (caller === 'everybody') return true;
  return role !== null && roles.indexOf(role) <= roles.indexOf(caller);
}

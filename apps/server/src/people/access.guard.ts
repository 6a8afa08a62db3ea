import { type CanActivate, createParamDecorator, type ExecutionContext, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { isCalledBy } from '../common/caller.ts';
import { isShopsScript } from '../common/door.ts';
import { PlainError } from '../common/plain-error.ts';
import { config } from '../config.ts';
import { type CallRule, mayCall, mayCallKey } from './may-call.ts';
import type { SessionEntity } from './people.entities.ts';
import { PeopleService } from './people.service.ts';
import { tokenOf } from './session-cookie.ts';

/** A request of which it is known who sent it. */
export type KnownRequest = Request & {
  session?: SessionEntity | null;
  /** Whether it is a script that brings the token of the shop, for nobody in particular. */
  isScript?: boolean;
};

/**
 * Lets a request through to an endpoint where it comes from one of those who may call it. A shop without a manager is open:
 * there, everybody may call everything. A script that brings the token of the shop may do what an operator may.
 */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly people: PeopleService,
  ) {}

  /** @throws PlainError 401 where nobody is signed in, 403 where who is may not */
  async canActivate(context: ExecutionContext): Promise<boolean> {
    const { caller, isOpen } = this.reflector.get<CallRule>(mayCallKey, context.getHandler());
    const request = context.switchToHttp().getRequest<KnownRequest>();
    request.session = await this.people.sessionHere(tokenOf(request));
    isCalledBy(request.session?.personId ?? null);
    const isScript = isOpen && isShopsScript(request.headers, config);
    request.isScript = isScript && request.session === null;
    const role = request.session?.person.role ?? (isScript ? 'operator' : null);
    if (mayCall(role, caller) || (isOpen && !(await this.people.hasManager()))) return true;
    if (role === null) throw new PlainError(401, 'not-signed-in', 'Sign in first.');
    throw new PlainError(
      403,
      'not-allowed',
      `That is for ${caller === 'manager' ? 'a manager' : 'an operator'} to do.`,
    );
  }
}

/** The session of the person who calls an endpoint; null where nobody is signed in. */
export const CallersSession = createParamDecorator(
  (_: unknown, context: ExecutionContext): SessionEntity | null =>
    context.switchToHttp().getRequest<KnownRequest>().session ?? null,
);

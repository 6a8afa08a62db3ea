import { type CanActivate, createParamDecorator, type ExecutionContext, Injectable } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { PlainError } from '../common/plain-error.ts';
import { type Caller, mayCall, mayCallKey } from './may-call.ts';
import type { SessionEntity } from './people.entities.ts';
import { PeopleService } from './people.service.ts';
import { tokenOf } from './session-cookie.ts';

type Known = Request & { session?: SessionEntity | null };

/** Lets a request through to an endpoint that declares who may call it, where it comes from one of those. */
@Injectable()
export class AccessGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly people: PeopleService,
  ) {}

  /** @throws PlainError 401 where nobody is signed in, 403 where who is may not */
  async canActivate(context: ExecutionContext): Promise<boolean> {
    const caller = this.reflector.get<Caller | undefined>(mayCallKey, context.getHandler());
    if (caller === undefined) return true;
    const request = context.switchToHttp().getRequest<Known>();
    request.session = await this.people.sessionOf(tokenOf(request));
    const role = request.session?.person.role ?? null;
    if (mayCall(role, caller)) return true;
    if (role === null) throw new PlainError(401, 'not-signed-in', 'Sign in first.');
    throw new PlainError(
      403,
      'not-allowed',
      `That is for ${caller === 'manager' ? 'a manager' : 'an operator'} to do.`,
    );
  }
}

/** The session of whoever calls an endpoint that declares who may; null where nobody is signed in. */
export const CallersSession = createParamDecorator(
  (_: unknown, context: ExecutionContext): SessionEntity | null =>
    context.switchToHttp().getRequest<Known>().session ?? null,
);

import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor } from '@nestjs/common';
import { getMetadataStorage } from 'class-validator';
import type { Observable } from 'rxjs';
import type { KnownRequest } from './access.guard.ts';
import { unsigned } from './tokens.ts';

/**
 * Signs what is done with the name of the person who is signed in, whatever name a request says or leaves out. Where nobody is
 * signed in, it is the name that was sent; so it is where a demo takes everybody for its manager.
 */
@Injectable()
export class SignedByInterceptor implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const request = context.switchToHttp().getRequest<KnownRequest>();
    const { session } = request;
    if (session && session.tokenHash !== unsigned && isSigned(context)) {
      const { name } = session.person;
      // Where the body is a file, what is said of it stands in the address. Express works that out anew each time.
      if (Buffer.isBuffer(request.body))
        Object.defineProperty(request, 'query', { value: { ...request.query, by: name } });
      else request.body = { ...request.body, by: name };
    }
    return next.handle();
  }
}

const known = new Map<unknown, boolean>();

/** Whether an endpoint takes a name that signs: one of its arguments is of a class that checks `by`. */
function isSigned(context: ExecutionContext): boolean {
  const handler = context.getHandler();
  let isIt = known.get(handler);
  if (isIt === undefined) {
    const types: unknown[] = Reflect.getMetadata('design:paramtypes', context.getClass().prototype, handler.name) ?? [];
    isIt = types.some((type) => typeof type === 'function' && checksSigner(type));
    known.set(handler, isIt);
  }
  return isIt;
}

function checksSigner(type: object): boolean {
  return getMetadataStorage()
    .getTargetValidationMetadatas(type as never, '', false, false)
    .some(({ propertyName }) => propertyName === 'by');
}

import type { Answers } from '@lambent/contracts';
import { applyDecorators, HttpCode, type StreamableFile } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiOperation, ApiResponse } from '@nestjs/swagger';

/** What an endpoint answers; `T` is what its method gives, `StreamableFile` where it is written out as it comes. */
export interface Answer<T> {
  readonly status: number;
  readonly content?: Record<string, { schema: object }>;
  /** Is there for the compiler alone. */
  readonly gives?: T;
}

const refTo = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const asJson = (schema: object) => ({ 'application/json': { schema } });
const binary = { type: 'string', format: 'binary' };

/** An answer of one of what `answers.ts` names. */
export function oneOf<Name extends keyof Answers>(name: Name, status = 200): Answer<Answers[Name]> {
  return { status, content: asJson(refTo(name)) };
}

/** An answer with a list of what `answers.ts` names. */
export function listOf<Name extends keyof Answers>(name: Name): Answer<Answers[Name][]> {
  return { status: 200, content: asJson({ type: 'array', items: refTo(name) }) };
}

/** JSON that goes out as it is stored, without being parsed on the way. */
export function writtenOf<Name extends keyof Answers>(name: Name, status = 200): Answer<StreamableFile> {
  return { status, content: asJson(refTo(name)) };
}

/** An answer that is a file, and no JSON. @param mediaType such as `image/*` */
export function fileOf<T = StreamableFile>(mediaType: string): Answer<T> {
  const isText = /^text|\+xml/.test(mediaType);
  return { status: 200, content: { [mediaType]: { schema: isText ? { type: 'string' } : binary } } };
}

/** Server-sent events, each as JSON. */
export function streamOf<T>(name: keyof Answers): Answer<T> {
  return { status: 200, content: { 'text/event-stream': { schema: refTo(name) } } };
}

/** Done, with nothing to say. */
export const nothing: Answer<void> = { status: 204 };

const errors: Record<number, string> = {
  400: 'What was sent cannot be taken; the sentence says why.',
  401: 'Nobody is signed in, or not by that name and password.',
  403: 'The person who is signed in may not do this.',
  404: 'There is none.',
  409: 'It does not go with what is there by now; the sentence says what to do.',
  413: 'It is larger than Lambent takes.',
  415: 'It is not a file of the kind that belongs here.',
  422: 'It can be read, but not done.',
  429: 'It is too soon to try again; the sentence says when.',
};

/**
 * Says what an endpoint is for and what it answers. The method must give what is said here: the compiler looks.
 *
 * @param summary a sentence without its full stop
 * @param refusals the statuses it refuses with; others, such as 507 where the disk is full, are said once for all
 */
export function Describe<T>(summary: string, { status, content }: Answer<T>, ...refusals: number[]) {
  const refusal = (code: number | 'default', description: string) =>
    ApiResponse({ status: code, description, content: asJson(refTo('Error')) });
  const decorators = [
    ApiOperation({ summary: `${summary}.` }),
    HttpCode(status),
    ApiResponse({ status, description: 'Done.', ...(content ? { content } : {}) }),
    ...refusals.map((code) => refusal(code, errors[code])),
    refusal('default', 'It was refused, or went wrong; nothing was changed. The sentence says why.'),
  ];
  return applyDecorators(...decorators) as <Method extends (...args: never[]) => T | Promise<T>>(
    target: object,
    key: string | symbol,
    descriptor: TypedPropertyDescriptor<Method>,
  ) => void;
}

/** The body is a file, byte for byte. */
export function FileBody() {
  return applyDecorators(ApiConsumes('application/octet-stream'), ApiBody({ required: true, schema: binary }));
}

/** The body is JSON that the core reads, and refuses in its own words. */
export function JsonBody(name: keyof Answers, mediaType = 'application/json') {
  return applyDecorators(ApiConsumes(mediaType), ApiBody({ required: true, schema: refTo(name) }));
}

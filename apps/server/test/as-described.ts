import { readFileSync } from 'node:fs';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';

interface Described {
  readonly summary?: string;
  /** Who may call it. */
  readonly 'x-may-call'?: string;
  readonly responses: Record<string, { readonly content?: Record<string, unknown> }>;
}
/** What the API says of itself, as the build wrote it down. */
export const api: {
  paths: Record<string, Record<string, Described>>;
  components: { schemas: Record<string, { examples?: unknown[] }> };
} = JSON.parse(readFileSync(new URL('../dist/openapi.json', import.meta.url), 'utf8'));
export const ajv = new Ajv2020({ strict: false, allErrors: true });
ajv.addSchema(api, 'api');

/** Paths as patterns, those with the fewest places for names first. */
const paths = Object.keys(api.paths)
  .toSorted((a, b) => a.split('{').length - b.split('{').length)
  .map((path) => ({ path, pattern: new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}$`) }));
const validators = new Map<string, ValidateFunction>();

/** Holds an answer against what the API says of itself. @throws Error that says what differs */
export function expectAsDescribed(method: string, url: string, status: number, mediaType: string, body: unknown): void {
  const asked = new URL(url, 'http://lambent').pathname;
  const path = paths.find(({ pattern }) => pattern.test(asked))?.path;
  const described = path === undefined ? undefined : api.paths[path][method.toLowerCase()];
  // What is no endpoint, and what did not come so far as one, is refused in the one shape of every error.
  const code = described && String(status) in described.responses ? String(status) : 'default';
  if (!described && status < 400) throw new Error(`${method} ${asked} is not described.`);
  if (code === 'default' && status < 400)
    throw new Error(`${method} ${asked} answered ${status}, which it does not say.`);
  const content = described?.responses[code].content;
  if (status < 400 && content) {
    const said = Object.keys(content).some((type) => mediaType.startsWith(type.replace('*', '')));
    if (!said) throw new Error(`${method} ${asked} answered ${mediaType}, and says ${Object.keys(content)}.`);
  }
  if (!/json/.test(mediaType)) return;
  const at =
    path !== undefined && described
      ? `/paths/${pointerPart(path)}/${method.toLowerCase()}/responses/${code}/content/application~1json/schema`
      : '/components/schemas/Error';
  let validate = validators.get(at);
  if (!validate) {
    validate = ajv.compile({ $ref: `api#${at}` });
    validators.set(at, validate);
  }
  if (!validate(body)) throw new Error(`${method} ${asked} ${status}: ${ajv.errorsText(validate.errors)}`);
}

function pointerPart(path: string): string {
  return encodeURIComponent(path.replaceAll('~', '~0').replaceAll('/', '~1'));
}

import { join } from 'node:path';
import * as TJS from 'typescript-json-schema';
import { root } from '../lib.mjs';

/** A name that a reader of the API's description should see; what is made up by the compiler is written out in place. */
const spoken = /^[A-Z]\w*$/;
/** Names of helpers of the type system, which say nothing of what is sent. */
const helpers =
  /^(Schema|OptionalSchema|Simplified|ReadonlyArray|Partial|Readonly|VariantOf|Values|Pick|Omit|Record)(_\d+)?$/;

/**
 * JSON Schemas of what crosses the wire, made from its types in `packages/contracts`: of all that `Answers` names, and of
 * every request.
 *
 * @returns schemas by name, which refer to each other as parts of an OpenAPI document
 */
export function typeSchemas() {
  const program = TJS.programFromConfig(join(root, 'packages/contracts/tsconfig.json'), [
    join(root, 'packages/contracts/src/index.ts'),
  ]);
  const generator = TJS.buildGenerator(program, {
    required: true,
    noExtraProps: true,
    ignoreErrors: true,
    validationKeywords: ['examples'],
  });
  if (!generator) throw new Error('The contracts do not compile.');
  const requests = generator.getMainFileSymbols(program).filter((name) => name.endsWith('Dto'));
  const { definitions } = generator.getSchemaForSymbols(['Answers', ...requests]);
  const answers = deref(definitions, definitions.Answers);
  const wanted = { ...answers.properties };
  for (const name of requests) wanted[name] = { $ref: `#/definitions/${name}` };
  return written(definitions, wanted);
}

const keyOf = ($ref) => decodeURIComponent($ref.slice('#/definitions/'.length));

function deref(definitions, schema) {
  return schema.$ref ? deref(definitions, definitions[keyOf(schema.$ref)]) : schema;
}

/** @param wanted what is to be written down, by its name */
function written(definitions, wanted) {
  const out = {};
  const named = new Map(Object.entries(wanted).flatMap(([name, { $ref }]) => ($ref ? [[keyOf($ref), name]] : [])));
  /** The name that a definition has in the description; null where it is written out in place. */
  const nameOf = (key) => {
    if (named.has(key)) return named.get(key);
    const plain = key.replace(/^import\(.*?\)\./, '');
    return spoken.test(plain) && !helpers.test(plain) ? plain : null;
  };
  const visit = (schema) => {
    if (Array.isArray(schema)) return schema.map(visit);
    if (typeof schema !== 'object' || schema === null) return schema;
    if (Array.isArray(schema.items)) return tuple(schema, visit(schema.items));
    const { $ref, ...beside } = schema;
    if (!$ref && schema.type === 'object' && !schema.properties) return open(schema);
    if (!$ref) return merged(Object.fromEntries(Object.entries(schema).map(([word, value]) => [word, visit(value)])));
    const target = definitions[keyOf($ref)];
    const name = nameOf(keyOf($ref));
    if (name === null) return { ...(recordOf(keyOf($ref)) ?? inPlace(visit(target))), ...beside };
    if (!(name in out)) {
      // What refers to itself finds its name taken.
      out[name] = null;
      out[name] = visit(target);
    }
    return { $ref: `#/components/schemas/${name}`, ...beside };
  };
  for (const [name, schema] of Object.entries(wanted)) {
    const seen = visit(schema);
    if (!schema.$ref) out[name] = seen;
  }
  return out;
}

/** What is written out in place, without what is said of the helper that it is made with. */
function inPlace({ description, ...schema }) {
  return schema;
}

/** A list of so many parts, each of its own kind, as JSON Schema 2020-12 has it. */
function tuple({ items: _, additionalItems: __, ...schema }, parts) {
  return { ...schema, prefixItems: parts, items: false };
}

/** A `Record` of plain values, which the generator takes for an object of anything. */
function recordOf(key) {
  const [, values] = /^Record<string,(number|string|boolean|"[\w-]+"(?:\|"[\w-]+")*)>$/.exec(key) ?? [];
  if (!values) return null;
  const words = values.startsWith('"') && { type: 'string', enum: values.split('|').map((word) => word.slice(1, -1)) };
  return { type: 'object', additionalProperties: words || { type: values } };
}

/** An object by names that are not known beforehand. */
function open({ additionalProperties, ...schema }) {
  return additionalProperties ? { ...schema, additionalProperties } : schema;
}

/** Parts of one object as that object: with fields that no part names only where a part leaves that open. */
function merged({ allOf, ...beside }) {
  if (!allOf?.every(({ type }) => type === 'object')) return allOf ? { allOf, ...beside } : beside;
  return {
    type: 'object',
    properties: Object.assign({}, ...allOf.map(({ properties }) => properties)),
    required: allOf.flatMap(({ required = [] }) => required),
    ...(allOf.every(({ additionalProperties }) => additionalProperties === false) && { additionalProperties: false }),
    ...beside,
  };
}

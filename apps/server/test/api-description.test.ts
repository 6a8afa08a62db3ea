import { expect, test } from '@jest/globals';
import { ajv, api } from './as-described.ts';

const operations = Object.entries(api.paths).flatMap(([path, methods]) =>
  Object.entries(methods).map(([method, operation]) => ({ name: `${method.toUpperCase()} ${path}`, ...operation })),
);

test('every operation says what it is for, what it answers and how it refuses', () => {
  expect(operations.length).toBeGreaterThan(40);
  for (const { name, summary, responses } of operations) {
    expect([name, summary]).toEqual([name, expect.stringMatching(/^[A-Z].{8,}\.$/)]);
    const done = Object.entries(responses).filter(([code]) => code.startsWith('2'));
    expect([name, done.length]).toEqual([name, 1]);
    const [code, { content }] = done[0];
    expect([name, code === '204' ? undefined : Object.keys(content ?? {}).length]).toEqual([
      name,
      code === '204' ? undefined : 1,
    ]);
    const refusals = Object.entries(responses).filter(([status]) => !status.startsWith('2'));
    expect([name, refusals.map(([status]) => status)]).toEqual([name, expect.arrayContaining(['default'])]);
    for (const [, refusal] of refusals)
      expect(refusal.content?.['application/json']).toEqual({ schema: { $ref: '#/components/schemas/Error' } });
  }
});

test('every schema that is named is there, and every example is as its schema says', () => {
  const named = JSON.stringify(api).matchAll(/"#\/components\/schemas\/(\w+)"/g);
  for (const [, name] of named) expect([name, api.components.schemas[name]]).toEqual([name, expect.any(Object)]);
  let tried = 0;
  for (const [name, { examples = [] }] of Object.entries(api.components.schemas)) {
    for (const example of examples) {
      tried++;
      const isRight = ajv.validate({ $ref: `api#/components/schemas/${name}` }, JSON.parse(JSON.stringify(example)));
      expect([name, isRight ? 'right' : ajv.errorsText()]).toEqual([name, 'right']);
    }
  }
  expect(tried).toBeGreaterThan(25);
});

import 'reflect-metadata';
import * as contracts from '@lambent/contracts';
import { NestFactory } from '@nestjs/core';
import { ApiProperty, DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { AppModule } from '../app.module.ts';
import { answerExamples, requestExamples } from './examples.ts';

type Schema = Record<string, unknown>;
type ObjectSchema = Schema & { readonly properties?: Record<string, Schema>; readonly required?: readonly string[] };

/**
 * What the API is, as OpenAPI 3.1, found from the controllers. Nothing is started.
 * @param types schemas of what crosses the wire, by name
 */
export async function apiDocument(types: Record<string, ObjectSchema>): Promise<OpenAPIObject> {
  describeRequests(types);
  const app = await NestFactory.create(AppModule, { preview: true, logger: false });
  const about = new DocumentBuilder()
    .setOpenAPIVersion('3.1.0')
    .setTitle('Lambent')
    .setDescription('What the page and scripts ask of the server. Lengths in mm, times in ISO 8601 and UTC.')
    .build();
  const document = SwaggerModule.createDocument(app, about);
  const schemas: Record<string, Schema> = { ...types, ...(document.components?.schemas as Record<string, Schema>) };
  for (const [name, example] of Object.entries({ ...answerExamples, ...requestExamples }))
    schemas[name] = { ...schemas[name], examples: [example] };
  return { ...document, components: { ...document.components, schemas } };
}

/** Requests get what is said of them in their types, and the limits that they are checked by. */
function describeRequests(types: Record<string, ObjectSchema>): void {
  const limits = validationMetadatasToSchemas() as Record<string, ObjectSchema>;
  for (const [name, request] of Object.entries(contracts)) {
    if (!isClass(request)) continue;
    const { properties = {}, required = [] } = limits[checkedBy(request, limits)];
    for (const [property, limit] of Object.entries(properties)) {
      const type = types[name]?.properties?.[property] ?? {};
      // What the entries of a list are, and whether it may be null, its type says: the checks do not know.
      const items = isOfParts(type) ? { items: type.items } : {};
      const both = { ...type, ...limit, ...items };
      const isWhole = '$ref' in type || 'anyOf' in type || type.type === 'object';
      const orNull = Array.isArray(type.type) ? { allOf: [{ ...both, type: type.type }] } : both;
      const schema = isWhole ? { allOf: [type] } : orNull;
      ApiProperty({ ...schema, required: required.includes(property) } as never)(request.prototype, property);
    }
  }
}

/** Whether what the contracts export is a class: a request. Of a plain function the prototype could be replaced. */
function isClass(exported: unknown): exported is { readonly name: string; readonly prototype: object } {
  return typeof exported === 'function' && Object.getOwnPropertyDescriptor(exported, 'prototype')?.writable === false;
}

/** Whether a type is a list of something that has a schema of its own. */
function isOfParts({ items }: Schema): boolean {
  return typeof items === 'object' && items !== null && '$ref' in items;
}

/** The class whose limits a request has: its own, or those of what it extends where it adds none. */
function checkedBy(request: { readonly name: string }, limits: object): string {
  return request.name in limits ? request.name : checkedBy(Object.getPrototypeOf(request), limits);
}

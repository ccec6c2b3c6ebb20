import { toJsonSchema } from '@valibot/to-json-schema';
import type * as v from 'valibot';
import { OPERATIONS, type Operation } from '#api/operations.ts';
import { ProblemSchema } from '#api/problem.ts';

/** OpenAPI 3.1 of everything under /api. */
export function openApi(): unknown {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [key, operation] of Object.entries(OPERATIONS)) {
    const [method = '', under = ''] = key.split(' ');
    const path = `/api${under}`;
    paths[path] = { ...paths[path], [method]: describeOperation(operation, path) };
  }
  return { openapi: '3.1.0', info: { title: 'Placard', version: '1' }, paths };
}

function describeOperation(operation: Operation, path: string): unknown {
  const inPath = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  return {
    summary: operation.does,
    parameters: [...inPath, ...(operation.query ? queryParameters(operation.query) : [])],
    ...(operation.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(operation.body) } },
          },
        }
      : {}),
    responses: {
      default: {
        description: 'A problem (RFC 9457)',
        content: { 'application/problem+json': { schema: schemaOf(ProblemSchema) } },
      },
      '2XX': {
        description: 'Done',
        ...(operation.answers
          ? { content: { 'application/json': { schema: schemaOf(operation.answers) } } }
          : {}),
      },
    },
  };
}

/** A query is described name by name, as OpenAPI wants it. */
function queryParameters(schema: v.GenericSchema): readonly unknown[] {
  const { properties = {}, required = [] } = schemaOf(schema);
  return Object.entries(properties).map(([name, one]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema: one,
  }));
}

function schemaOf(schema: v.GenericSchema) {
  return toJsonSchema(schema, { errorMode: 'ignore' });
}

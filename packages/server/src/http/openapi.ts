import { ProblemSchema } from '@tersum/document';
import type { RequestHandler } from 'express';
import { z } from 'zod';
import type { Operation } from './operations.js';
import { OPERATIONS } from './operations.js';

/** The HTTP interface described (OpenAPI 3.1), made from the schemas that check it. */
export function openApiRoute(version: string): RequestHandler {
  let made: unknown;
  return (_req, res) => {
    made ??= describe(version);
    res.json(made);
  };
}

function describe(version: string): unknown {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const operation of OPERATIONS) {
    const path = `/api${operation.path.replace(/:([a-z]+)/gi, '{$1}')}`;
    paths[path] = { ...paths[path], [operation.method]: described(operation) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Tersum', version, description: 'Repair bench for photographs' },
    paths,
  };
}

function described({ path, summary, body, answer, status = 200 }: Operation): unknown {
  const names = [...path.matchAll(/:([a-z]+)/gi)].map((m) => m[1]!);
  return {
    summary,
    parameters: names.map((name) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    })),
    ...(body ? { requestBody: { required: true, content: json(body, 'input') } } : {}),
    responses: {
      [status]: {
        description: summary,
        ...(answer === undefined
          ? {}
          : { content: typeof answer === 'string' ? { [answer]: {} } : json(answer, 'output') }),
      },
      default: {
        description: 'What is wrong, in a sentence for the person',
        content: json(ProblemSchema, 'output'),
      },
    },
  };
}

function json(schema: z.ZodType, io: 'input' | 'output'): unknown {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return { 'application/json': { schema: rest } };
}

import { convertSchema } from '@sodaru/yup-to-json-schema';
import { PROBLEMS } from '@zinc/contract';
import type { AnySchema } from 'yup';
import type { Route } from './route.ts';

type Json = Record<string, unknown>;

const TYPES = new Set(['string', 'number', 'integer', 'boolean', 'object', 'array', 'null']);

/** Yup's `mixed` says nothing about a type, so neither does the document. */
function dropUnknownTypes(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(dropUnknownTypes);
  if (typeof node !== 'object' || node === null) return node;
  const out = Object.fromEntries(Object.entries(node).map(([k, v]) => [k, dropUnknownTypes(v)])) as Json;
  const { type } = out;
  const isKeyword = typeof type === 'string' || (Array.isArray(type) && type.every(t => typeof t === 'string'));
  const named = [type].flat();
  if (isKeyword && (named.length === 0 || named.some(t => !TYPES.has(t as string)))) delete out.type;
  return out;
}

/** JSON Schema of a Yup schema. A nullable field becomes a type list, as OpenAPI 3.1 has it. */
export function schemaToJson(schema: AnySchema): Json {
  return dropUnknownTypes(convertSchema(schema as never)) as Json;
}

/** The OpenAPI 3.1 document of all routes, made from their schemas. */
export function openApi(routes: readonly Route[]): Json {
  const paths: Record<string, Json> = {};
  for (const r of routes) {
    const path = `/api${r.path.replace(/:(\w+)/g, '{$1}')}`;
    const parameters = [
      ...[...r.path.matchAll(/:(\w+)/g)].map(m => ({ name: m[1], in: 'path', required: true, schema: { type: 'string' } })),
      ...(r.query ?? []).map(name => ({ name, in: 'query', required: false, schema: { type: 'string' } })),
    ];
    const status = String(r.status ?? (r.response || r.produces ? 200 : 204));
    const content = r.response
      ? { 'application/json': { schema: schemaToJson(r.response) } }
      : r.produces
        ? { [r.produces]: {} }
        : undefined;
    const operation: Json = {
      operationId: `${r.method}${r.path.replace(/[/:.-]+(\w?)/g, (_, c: string) => c.toUpperCase())}`,
      summary: r.summary,
      description: r.roles === 'anyone' ? 'Open to anyone.' : `For: ${r.roles.join(', ')}.`,
      ...(parameters.length > 0 ? { parameters } : {}),
      ...(r.body ? { requestBody: { required: true, content: { 'application/json': { schema: schemaToJson(r.body) } } } } : {}),
      ...(r.upload
        ? {
            requestBody: {
              required: true,
              content: {
                'multipart/form-data': {
                  schema: { type: 'object', properties: { [r.upload]: { type: 'string', format: 'binary' } } },
                },
              },
            },
          }
        : {}),
      responses: {
        [status]: { description: 'Done', ...(content ? { content } : {}) },
        default: {
          description: 'A problem document',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
      ...(r.roles === 'anyone' ? { security: [] } : {}),
    };
    paths[path] = { ...paths[path], [r.method]: operation };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Zinc Shelf', version: '0.1.0', license: { name: 'MIT', identifier: 'MIT' } },
    servers: [{ url: '/' }],
    security: [{ session: [] }],
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'zinc.session' } },
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'code', 'detail'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            code: { type: 'string', enum: Object.keys(PROBLEMS) },
            detail: { type: 'string' },
            field: { type: 'string' },
            findings: { type: 'array', items: {} },
          },
        },
      },
    },
  };
}

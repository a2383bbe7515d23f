import { ENDPOINTS, isSent, paramNames, problemSchema, schemaOf, type AnyEndpoint } from '@osier/contract';
import { statusesOf } from './statuses';
import { jsonSchemaOf, type JsonSchema } from './json-schema';

/** The API as OpenAPI 3.1, printed from the table of the contract. */
export function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const e of ENDPOINTS) (paths[e.path.replace(/:(\w+)/g, '{$1}')] ??= {})[e.method] = operation(e);
  return {
    openapi: '3.1.0',
    info: { title: 'Osier', version: '1', description: 'The technical services desk of a library.' },
    servers: [{ url: '/api' }],
    paths,
    components: {
      schemas: { Problem: jsonSchemaOf(schemaOf(problemSchema)) },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'osier' } },
    },
  };
}

function operation(e: AnyEndpoint): object {
  const parameters = [
    ...paramNames(e.path).map((name) => ({
      name,
      in: 'path',
      required: true,
      schema: e.params[name] ? jsonSchemaOf(e.params[name]) : { type: 'integer', minimum: 1 },
    })),
    ...Object.entries(e.query ? parts(jsonSchemaOf(e.query)) : {}).map(([name, schema]) => ({
      name,
      in: 'query',
      schema,
    })),
  ];
  return {
    summary: e.summary,
    ...(e.permission && {
      description: `Asks for the permission “${e.permission}”.`,
      security: [{ session: [] }],
    }),
    ...(parameters.length && { parameters }),
    ...(e.body && { requestBody: { required: true, content: content(e) } }),
    responses: {
      [e.status]: { description: 'Done', content: answered(e) },
      ...Object.fromEntries(statusesOf(e).map((status) => [status, PROBLEM])),
      default: PROBLEM,
    },
  };
}

const PROBLEM = {
  description: 'RFC 9457 problem details',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

const parts = (schema: JsonSchema): JsonSchema => (schema.properties ?? {}) as JsonSchema;

function content({ body }: AnyEndpoint): object {
  return body === null || body === 'file'
    ? { 'application/octet-stream': { schema: {} } }
    : { 'application/json': { schema: jsonSchemaOf(body) } };
}

const answered = ({ answer }: AnyEndpoint): object =>
  isSent(answer)
    ? Object.fromEntries(answer.media.map((media) => [media, {}]))
    : { 'application/json': { schema: jsonSchemaOf(answer) } };

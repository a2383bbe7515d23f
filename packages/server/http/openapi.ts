import type { Route } from './route';

interface Described {
  type?: string;
  fields?: Record<string, Described>;
  innerType?: Described;
  oneOf?: unknown[];
  optional?: boolean;
  nullable?: boolean;
}

/** The API as OpenAPI 3.1, made from the routes and their Yup schemas. */
export function openApi(routes: readonly Route[]): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const r of routes) {
    const path = r.path.replace(/:(\w+)/g, '{$1}');
    const parameters = [...r.path.matchAll(/:(\w+)/g)].map((m) => ({
      name: m[1],
      in: 'path',
      required: true,
      schema: { type: 'integer' },
    }));
    (paths[path] ??= {})[r.method] = {
      summary: r.summary,
      ...(r.permission ? { description: `Asks for the permission “${r.permission}”.` } : {}),
      ...(parameters.length ? { parameters } : {}),
      ...(r.body
        ? { requestBody: { content: { 'application/json': { schema: schemaOf(r.body.describe()) } } } }
        : {}),
      responses: {
        [r.status ?? 200]: { description: 'Done' },
        default: {
          description: 'RFC 9457 problem details',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
    };
  }
  const text = { type: 'string' };
  return {
    openapi: '3.1.0',
    info: { title: 'Osier', version: '1' },
    paths,
    components: {
      schemas: {
        Problem: {
          type: 'object',
          properties: {
            type: text,
            title: text,
            status: { type: 'integer' },
            detail: text,
            fields: { type: 'array', items: { type: 'object', properties: { field: text, message: text } } },
          },
        },
      },
    },
  };
}

function schemaOf(d: Described): object {
  if (d.type === 'object') {
    const entries = Object.entries(d.fields ?? {});
    return {
      type: 'object',
      properties: Object.fromEntries(entries.map(([name, f]) => [name, schemaOf(f)])),
      required: entries.filter(([, f]) => f.optional === false).map(([name]) => name),
    };
  }
  if (d.type === 'array') return { type: 'array', items: d.innerType ? schemaOf(d.innerType) : {} };
  if (d.oneOf?.length) return { enum: d.oneOf };
  const type = d.type === 'mixed' ? {} : { type: d.nullable ? [d.type, 'null'] : d.type };
  return type;
}

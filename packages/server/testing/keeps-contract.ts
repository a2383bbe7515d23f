import { ENDPOINTS, isSent, paramNames, problemSchema, schemaOf, type AnyEndpoint } from '@osier/contract';
import { ValidationError, type Schema } from 'yup';
import { ANY_REQUEST, statusesOf } from '../http/statuses';

/** The endpoints, those with the fewest parameters first: the fixed parts of a path go before parameters. */
const BY_PATH = [...ENDPOINTS]
  .sort((a, b) => paramNames(a.path).length - paramNames(b.path).length)
  .map((endpoint) => ({ endpoint, path: new RegExp(`^${endpoint.path.replace(/:\w+/g, '[^/]+')}/?$`) }));

/** The endpoint that a path of the API, without its query, is answered by. */
function endpointOf(method: string, path: string): AnyEndpoint | undefined {
  const [asked = ''] = path.split('?');
  return BY_PATH.find((e) => e.endpoint.method === method.toLowerCase() && e.path.test(asked))?.endpoint;
}

/** Some rows of a long list, from its beginning to its end, stand for the rest of it, which comes from the same code. */
const ROWS_LOOKED_AT = 60;
function shortened(value: unknown): unknown {
  if (Array.isArray(value)) {
    const step = Math.max(1, value.length / ROWS_LOOKED_AT);
    return value.filter((_, i) => Math.floor(i / step) !== Math.floor((i - 1) / step)).map(shortened);
  }
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, shortened(v)]));
}

function differs(schema: Schema, body: unknown): string[] {
  try {
    schema.validateSync(body, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    return error instanceof ValidationError ? error.errors.map((e) => e.slice(0, 300)) : [String(error)];
  }
}

/**
 * What an answer has that the contract does not say, or lacks: a test that gets such an answer fails. What is answered to a
 * path that is not in the table is not looked at.
 */
export function breachOf(method: string, path: string, status: number, body: unknown): string | null {
  const endpoint = endpointOf(method, path);
  if (!endpoint) return null;
  const told = (what: string) => `${method} ${path} answered ${status}: ${what}`;
  if (status >= 400) {
    if (!ANY_REQUEST.includes(status) && !statusesOf(endpoint).includes(status))
      return told('this status is not in the contract');
    const wrong = differs(schemaOf(problemSchema), body);
    return wrong.length ? told(wrong.join('; ')) : null;
  }
  if (status !== endpoint.status) return told(`the contract says ${endpoint.status}`);
  if (isSent(endpoint.answer)) return null;
  const wrong = differs(endpoint.answer, shortened(body));
  return wrong.length ? told(wrong.join('; ')) : null;
}

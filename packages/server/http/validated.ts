import { ValidationError, type Schema } from 'yup';
import { wrongFields } from './problem';

/** A value as its schema has it; what is wrong with it is told field by field (422). */
export async function validated<Body>(schema: Schema<Body>, body: unknown): Promise<Body> {
  try {
    return await schema.validate(body ?? {}, { abortEarly: false, stripUnknown: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length ? error.inner : [error];
    throw wrongFields(all.map((e) => ({ field: e.path ?? '', message: e.message })));
  }
}

import { ValidationError, type Schema } from 'yup';
import { wrong, wrongFields } from './problem';
import { soundJson } from './sound-json';

/** A value as its schema has it; what is wrong with it is told field by field (422). */
export async function validated<Body>(schema: Schema<Body>, body: unknown): Promise<Body> {
  soundJson(body);
  try {
    return await schema.validate(body ?? {}, { abortEarly: false, stripUnknown: true });
  } catch (error) {
    // A part of another kind than its schema expects may stop the schema itself.
    if (!(error instanceof ValidationError))
      throw wrong('', 'The request is not in the form that it should have.');
    const all = error.inner.length ? error.inner : [error];
    throw wrongFields(all.map((e) => ({ field: e.path ?? '', message: e.message })));
  }
}

import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify(scrypt) as (password: string, salt: Buffer, length: number) => Promise<Buffer>;

/** Salt and key of a password (scrypt, Node's default cost), as text. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString('hex')}:${(await derive(password.normalize('NFKC'), salt, 64)).toString('hex')}`;
}

/** Whether a password is the one; an account without a password (a demo person) has none that fits. */
export async function isPassword(password: string, stored: string): Promise<boolean> {
  const [salt = '', key = ''] = stored.split(':');
  const expected = Buffer.from(key, 'hex');
  const given = await derive(password.normalize('NFKC'), Buffer.from(salt, 'hex'), 64);
  return expected.length === given.length && timingSafeEqual(expected, given);
}

import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Seals what must not be readable in the store, its copies and its daybook. */
export interface Secrets {
  seal(text: string): Promise<string>;
  /** '' for what this server has not sealed: the key is another one. */
  open(sealed: string): Promise<string>;
}

const KEY_FILE = 'secrets.key';
const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** Secrets under a key of this data folder, which only its owner may read: AES-256-GCM (NIST SP 800-38D), nonce, tag and text in base64. */
export function secretsOf(folder: string): Secrets {
  let kept: Promise<Buffer> | null = null;
  const key = () => (kept ??= keyIn(folder));
  return {
    async seal(text) {
      if (text === '') return '';
      const nonce = randomBytes(NONCE_BYTES);
      const cipher = createCipheriv('aes-256-gcm', await key(), nonce);
      const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
      return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
    },
    async open(sealed) {
      if (sealed === '') return '';
      const bytes = Buffer.from(sealed, 'base64');
      try {
        const decipher = createDecipheriv('aes-256-gcm', await key(), bytes.subarray(0, NONCE_BYTES));
        decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
        const text = decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES));
        return Buffer.concat([text, decipher.final()]).toString('utf8');
      } catch {
        return '';
      }
    },
  };
}

/** The key of a folder, made when it is asked for first. Two that make it at once end with the same one. */
async function keyIn(folder: string): Promise<Buffer> {
  const file = join(folder, KEY_FILE);
  await writeFile(file, randomBytes(KEY_BYTES), { mode: 0o600, flag: 'wx' }).catch(
    (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EEXIST') throw error;
    },
  );
  const key = await readFile(file);
  if (key.length !== KEY_BYTES) throw new Error(`${file} is no key: it must have ${KEY_BYTES} bytes.`);
  return key;
}

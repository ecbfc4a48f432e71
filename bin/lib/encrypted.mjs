// Files that only a password opens: AES-256-GCM (NIST SP 800-38D) under a key stretched by scrypt (RFC 7914).
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { closeSync, createReadStream, createWriteStream, openSync, readSync, renameSync, rmSync, statSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';

/** How such a file begins; then salt, nonce, what is in it, and the tag that tells whether it was changed. */
const MAGIC = Buffer.from('wendel backup, encrypted 1\n');
const SALT = 16;
const NONCE = 12;
const TAG = 16;
const HEAD = MAGIC.length + SALT + NONCE;
/** 128 MB and about half a second a guess. */
const SCRYPT = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 };
const LEAST_PASSWORD = 12;

const keyOf = (password, salt) => scryptSync(password.normalize('NFKC'), salt, 32, SCRYPT);

function firstBytes(path, length) {
  const file = openSync(path, 'r');
  const bytes = Buffer.alloc(length);
  const read = readSync(file, bytes, 0, length, 0);
  closeSync(file);
  return bytes.subarray(0, read);
}

export const isEncrypted = (path) => firstBytes(path, MAGIC.length).equals(MAGIC);

/** Encrypt a file in its place. @throws Error when the password is too short. */
export async function encryptFile(path, password) {
  if (password.length < LEAST_PASSWORD)
    throw new Error(`The password of a backup has at least ${LEAST_PASSWORD} characters: nothing was written.`);
  const [salt, nonce] = [randomBytes(SALT), randomBytes(NONCE)];
  const cipher = createCipheriv('aes-256-gcm', keyOf(password, salt), nonce);
  const head = Buffer.concat([MAGIC, salt, nonce]);
  cipher.setAAD(head);
  const aside = `${path}.encrypted`;
  async function* whole() {
    yield head;
    for await (const piece of createReadStream(path)) yield cipher.update(piece);
    yield cipher.final();
    yield cipher.getAuthTag();
  }
  try {
    await pipeline(whole, createWriteStream(aside, { mode: 0o600 }));
    renameSync(aside, path);
  } finally {
    rmSync(aside, { force: true });
  }
}

/** What is in an encrypted file, as a file beside it; its path. @throws Error when the password is wrong or the file was changed. */
export async function decryptFile(path, password) {
  if (!password) throw new Error('This backup is encrypted: give its password in WENDEL_BACKUP_PASSWORD.');
  const head = firstBytes(path, HEAD);
  const end = statSync(path).size - TAG;
  const file = openSync(path, 'r');
  const tag = Buffer.alloc(TAG);
  readSync(file, tag, 0, TAG, end);
  closeSync(file);
  const salt = head.subarray(MAGIC.length, MAGIC.length + SALT);
  const decipher = createDecipheriv('aes-256-gcm', keyOf(password, salt), head.subarray(MAGIC.length + SALT));
  decipher.setAAD(head);
  decipher.setAuthTag(tag);
  const plain = `${path}.plain`;
  try {
    await pipeline(createReadStream(path, { start: HEAD, end: end - 1 }), decipher, createWriteStream(plain, { mode: 0o600 }));
  } catch {
    rmSync(plain, { force: true });
    throw new Error('The password is wrong, or the file was changed: nothing was restored.');
  }
  return plain;
}

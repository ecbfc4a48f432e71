import { createHash, randomBytes } from 'node:crypto';

const TOKEN_BYTES = 32;

/** A token good for a door, and what is kept of it. */
export const newToken = () => randomBytes(TOKEN_BYTES).toString('base64url');
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

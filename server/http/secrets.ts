import { createHash, randomBytes } from 'node:crypto'

/** A secret that nobody guesses: 256 bits unless it is said, in letters that an address can hold. */
export const newSecret = (bytes = 32): string => randomBytes(bytes).toString('base64url')
/** Hash of a secret: it has more bits than can be tried, so a fast hash will do. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex')

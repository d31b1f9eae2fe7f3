import { hash, verify } from '@node-rs/argon2'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { newSecret } from '../http/secrets'

/**
 * argon2id with 19 MiB of memory, 2 passes, 1 lane: the first of the equivalent settings of the OWASP Password Storage
 * Cheat Sheet (from memory), which are also the library's own.
 */
const ARGON = { memoryCost: 19456, timeCost: 2, parallelism: 1 }
export const hashPassword = (password: string): Promise<string> => hash(password.normalize('NFKC'), ARGON)

/** A hash of nothing anybody knows: whoever is not there takes as long to be refused as one who is. */
const NOBODY = hashPassword(newSecret())
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  const right = await verify(kept ?? (await NOBODY), password.normalize('NFKC'))
  return right && kept !== null
}

/** From 0, guessed at once, to 4; 3 is safe against guessing a hash for a while. */
const LEAST_SCORE = 3
let strength: ZxcvbnFactory | undefined
/** Is a password among the common ones, or made of the name, of one letter over and over, of a row of keys? */
export const isSoonGuessed = (password: string, name: string): boolean =>
  // Its word lists take a while to read in, and most processes never ask.
  (strength ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })).check(password, [
    'ypsometer',
    'aquarium',
    'filter',
    ...name.split(/\s+/),
  ]).score < LEAST_SCORE

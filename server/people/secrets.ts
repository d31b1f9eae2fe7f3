import { hash, verify } from '@node-rs/argon2'
import type { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { newSecret } from '../http/secrets'

/**
 * argon2id with 19 MiB of memory, 2 passes, 1 lane: the first of the equivalent settings of the OWASP Password Storage
 * Cheat Sheet (from memory), which are also the library's own.
 */
const ARGON = { memoryCost: 19456, timeCost: 2, parallelism: 1 }
export const hashPassword = (password: string): Promise<string> => hash(password.normalize('NFKC'), ARGON)

/** A hash of nothing anybody knows: whoever is not there takes as long to be refused as one who is. */
let nobody: Promise<string> | undefined
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  // Waited for either way: the first to sign in is no sign of who is there.
  const nobodys = await (nobody ??= hashPassword(newSecret()))
  const right = await verify(kept ?? nobodys, password.normalize('NFKC'))
  return right && kept !== null
}

/** From 0, guessed at once, to 4; 3 is safe against guessing a hash for a while. */
const LEAST_SCORE = 3
let strength: Promise<ZxcvbnFactory> | undefined
/** Its word lists take a while to read in, and most processes never ask. */
async function readStrength(): Promise<ZxcvbnFactory> {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ])
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })
}
/** Is a password among the common ones, or made of the name, of one letter over and over, of a row of keys? */
export async function isSoonGuessed(password: string, name: string): Promise<boolean> {
  const told = (await (strength ??= readStrength())).check(password, [
    'ypsometer',
    'aquarium',
    'filter',
    ...name.split(/\s+/),
  ])
  return told.score < LEAST_SCORE
}

import type { Problem } from '@ypsometer/contract'
import { makeStore } from '../settings/store'

/** An answer other than success: the problem document, and the field it names first. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.errors?.[0]?.message ?? problem.detail ?? problem.title)
  }
}

/** The server did not answer at all (stopped, network gone, or not ready). */
export class Unreachable extends Error {}

/** Has the server itself not answered? A copy kept on this device is no answer. */
export const serverAway = makeStore(false)

/** Told when the server says that nobody is signed in here: a session has ended, or there was none. */
const turnedAway = new Set<(somebodyElse: boolean) => void>()
export const onTurnedAway = (l: (somebodyElse: boolean) => void): (() => void) => {
  turnedAway.add(l)
  return () => turnedAway.delete(l)
}
/** How often somebody has come in here: what was asked before the last time says nothing of now. */
let comings = 0
export const noteComing = (): void => void comings++
/** The code of an answer that asks one to sign in. */
const SIGN_IN = 'sign-in'
/** The code of an answer that says that another window has signed somebody else in. */
const OTHER = 'other-writer'
/** Does a refusal say that whoever wrote it is not signed in here, or no longer? */
export const isNotIn = ({ code }: Problem): boolean => code === SIGN_IN || code === OTHER

/** This page, for as long as it is open: told to the server so that it does not tell us of our own writes. */
export const PAGE = crypto.randomUUID()

interface Options {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  readonly body?: unknown
  readonly key?: string
  readonly version?: number
  /** Who wrote it: refused when somebody else is signed in. */
  readonly writer?: string
  readonly signal?: AbortSignal
}

/** Calls the API. @throws ApiProblem for a refusal, Unreachable when there is no answer. */
export async function api<T>(
  path: string,
  { method = 'GET', body, key, version, writer, signal }: Options = {},
): Promise<T> {
  const headers: Record<string, string> = { accept: 'application/json' }
  const file = body instanceof Blob
  if (body !== undefined)
    headers['content-type'] = file ? body.type || 'application/octet-stream' : 'application/json'
  if (method !== 'GET') headers['x-page'] = PAGE
  if (key) headers['idempotency-key'] = key
  if (writer) headers['x-writer'] = writer
  if (version !== undefined) headers['if-match'] = `"${version}"`
  const asked = comings
  let response: Response
  try {
    response = await fetch(`/api/v1${path}`, {
      method,
      headers,
      ...(body !== undefined && { body: file ? body : JSON.stringify(body) }),
      ...(signal && { signal }),
    })
  } catch (error) {
    if (signal?.aborted) throw error
    serverAway.set(true)
    throw new Unreachable('The server cannot be reached')
  }
  serverAway.set(response.headers?.get('x-kept-on-device') === '1')
  if (response.status === 502 || response.status === 503 || response.status === 504)
    throw new Unreachable('The server is not ready')
  const json = (await response.json().catch(() => null)) as unknown
  if (!response.ok) {
    const { code } = (json as Problem | null) ?? {}
    if ((code === SIGN_IN || code === OTHER) && asked === comings)
      turnedAway.forEach((l) => l(code === OTHER))
    throw new ApiProblem(
      (json as Problem | null) ?? {
        type: 'about:blank',
        title: response.statusText,
        status: response.status,
      },
    )
  }
  return json as T
}

import { CoreError } from '@ypsometer/core/errors/errors'
import type { Problem } from '@ypsometer/contract'
import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod'

/** An answer other than success, thrown from a route and written as RFC 9457 problem+json. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title)
  }
}

type Extra = Partial<Pick<Problem, 'detail' | 'errors' | 'current'>>

/** Builds a {@link ProblemError}; `code` is stable and becomes the problem's type. */
export const problem = (status: number, code: string, title: string, extra: Extra = {}): ProblemError =>
  new ProblemError({ type: `urn:ypsometer:${code}`, title, status, code, ...extra })

/** A problem with one field at fault. */
export const fieldProblem = (field: string, message: string, status = 422): ProblemError =>
  problem(status, 'invalid-field', 'A field cannot be taken as it is', { errors: [{ field, message }] })

export const busy = () =>
  problem(503, 'busy', 'The server has more to do than it can', { detail: 'Try again in a moment.' })

interface PgError {
  code: string
  constraint?: string
  column?: string
  detail?: string
}
const isPgError = (e: unknown): e is Error & PgError =>
  e instanceof Error && 'code' in e && typeof e.code === 'string' && /^[0-9A-Z]{5}$/.test(e.code)
const pgError = (error: unknown): PgError | null => {
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error
  return isPgError(cause) ? cause : null
}

/** Meaning of each named constraint of the database, in the words of the person who met it. */
const CONSTRAINTS: Readonly<Record<string, readonly [field: string, message: string]>> = {
  model_maker_name: ['name', 'This maker already has a model of this name on the shelf.'],
  claim_once: [
    'quantity',
    'This claim is already recorded from the same place with the same qualifier. Change that one.',
  ],
  claim_money: ['currency', 'A price needs both an amount and a currency.'],
  reading_kind_of_trial: ['kind', 'A reading must be of the kind of its test, and the test must exist.'],
  reading_trial_id_trial_id_fk: ['trialId', 'There is no such test.'],
  reading_whole: ['value', 'A reading must hold what its kind is made of.'],
  log_trial_id_trial_id_fk: ['trialId', 'There is no such test.'],
  body_of_model: ['modelId', 'This model already has a body; change that one.'],
  medium_name: ['name', 'The library already has a medium of this name.'],
  medium_price: ['priceMinor', 'A price needs both an amount and a currency.'],
  tank_level: ['waterLevel', 'The water level must be above the bottom and no higher than the tank.'],
  tank_substrate: ['substrateDepth', 'The substrate must be lower than the water.'],
}

function fromDatabase(e: PgError): ProblemError | null {
  const known = e.constraint ? CONSTRAINTS[e.constraint] : undefined
  if (known) return fieldProblem(known[0], known[1], e.code === '23505' ? 409 : 422)
  if (e.code === '23505')
    return problem(409, 'exists', 'There is already such a row', {
      errors: [{ field: 'id', message: 'an id not used before' }],
    })
  if (e.code === '23503') {
    const column = /\((\w+)\)=/.exec(e.detail ?? '')?.[1] ?? 'id'
    const field = column.replace(/_(\w)/g, (_, c: string) => c.toUpperCase())
    return fieldProblem(field, 'points at something that is not there')
  }
  if (e.code.startsWith('22') || e.code.startsWith('23'))
    return fieldProblem(
      'body',
      'holds a value the database cannot keep (an odd character or a number out of range)',
    )
  if (e.code === '53100')
    return problem(503, 'disk-full', 'The disk that holds the record is full', {
      detail: 'Nothing was written. Make room on it; then the same write is taken.',
    })
  // Two writes that stand in each other's way, too many connections, a connection lost, a database that goes or comes.
  if (['40001', '40P01'].includes(e.code) || /^(08|53|57)/.test(e.code)) return unavailable()
  return null
}

const unavailable = (): ProblemError =>
  problem(503, 'database-away', 'The database cannot be reached', {
    detail: 'Nothing is half-written, and nothing is written twice: try again in a moment.',
  })

/** An error's words and those of what caused it. */
const messages = (error: unknown): string =>
  error && typeof error === 'object' && 'message' in error
    ? `${String(error.message)} ${'cause' in error ? messages(error.cause) : ''}`
    : ''
/** How the driver and the socket say that there is no database at the other end, or no longer. */
const AWAY =
  /ECONNREFUSED|ECONNRESET|EPIPE|Connection terminated|encountered a connection error|socket has been ended|after a stream was destroyed|timeout exceeded when trying to connect|ENOENT.*PGSQL/

/** Most fields that are named: what is wrong throughout is not told a million times. */
const MOST_NAMED = 50

function toProblem(error: unknown, request: FastifyRequest): Problem {
  if (error instanceof ProblemError) return error.problem
  if (hasZodFastifySchemaValidationErrors(error))
    return problem(400, 'invalid', 'The request cannot be read as it is', {
      errors: error.validation.slice(0, MOST_NAMED).map((v) => {
        const at = v.instancePath.replace(/^\//, '').replace(/\//g, '.')
        const unknown = /^Unrecognized keys?: "([^"]+)"/.exec(v.message ?? '')?.[1]
        if (unknown) return { field: at ? `${at}.${unknown}` : unknown, message: 'there is no such field' }
        return { field: at || error.validationContext || 'body', message: v.message ?? 'not accepted' }
      }),
    }).problem
  if (error instanceof CoreError) return fieldProblem(error.field, error.message).problem
  const pg = pgError(error)
  const known = pg && fromDatabase(pg)
  if (known) return known.problem
  if (AWAY.test(messages(error))) return unavailable().problem
  const status = (error as FastifyError).statusCode ?? 500
  if (status === 413)
    return problem(413, 'too-large', 'What was sent is too large', {
      errors: [
        {
          field: /json/.test(request.headers['content-type'] ?? '') ? 'body' : 'photo',
          message: `at most ${request.routeOptions.bodyLimit / 2 ** 20} MB here`,
        },
      ],
    }).problem
  if (status < 500) {
    const message = error instanceof Error ? error.message : 'not accepted'
    return problem(status, 'refused', 'The request was refused', {
      detail: message,
      errors: [{ field: 'body', message }],
    }).problem
  }
  return problem(500, 'fault', 'Something failed on our side', {
    detail: 'It has been logged. Nothing was half-written.',
  }).problem
}

/** Sends every error as problem+json, and logs those that are ours. */
export function registerProblems(app: FastifyInstance): void {
  app.setErrorHandler((error: unknown, request: FastifyRequest, reply: FastifyReply) => {
    const body = toProblem(error, request)
    if (body.status >= 500 && body.code !== 'busy') request.log.error({ err: error }, body.title)
    return sendProblem(reply, body)
  })
}

/** Seconds a client is asked to leave a server that is out of reach before it tries again. */
const RETRY_AFTER = 2

export const sendProblem = (reply: FastifyReply, body: Problem): FastifyReply =>
  (body.status === 503 ? reply.header('retry-after', RETRY_AFTER) : reply)
    .code(body.status)
    .header('content-type', 'application/problem+json; charset=utf-8')
    .serializer(JSON.stringify)
    .send(body)

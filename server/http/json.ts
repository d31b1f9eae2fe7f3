import type { FastifyInstance } from 'fastify'
import { problem } from './problems'

/** Levels of lists and objects within each other that no record of ours reaches. */
const DEEPEST = 64
/** Values in a body that is read where all are answered: more take longer to check than others should wait. */
const MOST_IN_BODY = 200_000

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c]
const OPENS: readonly boolean[] = Array.from({ length: 256 }, (_, c) => c === 0x5b || c === 0x7b)
const CLOSES: readonly boolean[] = Array.from({ length: 256 }, (_, c) => c === 0x5d || c === 0x7d)

/** The place behind the string that begins at `from`. */
function afterString(bytes: Buffer, from: number): number {
  for (let end = bytes.indexOf(QUOTE, from + 1); end >= 0; end = bytes.indexOf(QUOTE, end + 1)) {
    let slashes = 0
    while (bytes[end - 1 - slashes] === BACKSLASH) slashes++
    if (slashes % 2 === 0) return end + 1
  }
  return bytes.length
}

/** Excess of JSON, too deep or too many values, told without building or recursing; null where it may be read. */
export function tooMuchJson(bytes: Buffer, most = MOST_IN_BODY): string | null {
  let depth = 0
  let values = 1
  for (let i = 0; i < bytes.length;) {
    const c = bytes[i] as number
    if (c === QUOTE) {
      i = afterString(bytes, i)
      continue
    }
    if (OPENS[c]) {
      if (++depth > DEEPEST) return `at most ${DEEPEST} levels of lists and objects within each other`
      values++
    } else if (CLOSES[c]) depth--
    else if (c === COMMA) values++
    if (values > most) return `at most ${most} values`
    i++
  }
  return null
}

/** Bodies of JSON: those beyond the limits are refused before anything is made of them. */
export function registerJson(app: FastifyInstance, most?: number): void {
  const parse = app.getDefaultJsonParser('error', 'error')
  app.removeContentTypeParser('application/json')
  app.addContentTypeParser('application/json', { parseAs: 'buffer' }, (request, body, done) => {
    const bytes = body as Buffer
    const refused = tooMuchJson(bytes, most)
    if (refused)
      return done(
        problem(413, 'too-large', 'What was sent is too large', {
          errors: [{ field: 'body', message: refused }],
        }),
      )
    void parse(request, bytes.toString('utf8'), done)
  })
}

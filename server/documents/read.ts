import {
  completedRow,
  RESOURCE_NAMES,
  DOCUMENT_VERSION,
  MOST_ROWS,
  YpsoDocument,
  type ResourceName,
} from '@ypsometer/contract'
import {
  findNodeAtLocation,
  parseTree,
  printParseErrorCode,
  visit,
  type Node,
  type ParseError,
} from 'jsonc-parser'
import { tooMuchJson } from '../http/json'
import { parse } from 'secure-json-parse'

/** Something of a document that cannot be taken, with its line. */
export interface Refused {
  readonly line: number | null
  readonly field: string
  readonly message: string
}

/** A document, or why it is none; `lineOf` says where something stands in its text. */
export type ReadDocument =
  | {
      readonly document: YpsoDocument
      readonly lineOf: (path: readonly (string | number)[]) => number | null
    }
  | { readonly refused: readonly Refused[] }

/** Most refusals that are named. */
const MOST = 50
/** Rows that are checked in one go: once enough is wrong, no more is looked at. */
const IN_ONE_GO = 200
/** Most values of a document: a bench of some ten thousand models. */
const MOST_VALUES = 2_000_000

/** The line of a place in a text, found by halving: a document may be refused in many places. */
function linesOf(text: string): (offset: number) => number {
  const starts = [0]
  for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) starts.push(i + 1)
  return (offset) => {
    let [low, high] = [0, starts.length]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if ((starts[middle] as number) <= offset) low = middle
      else high = middle
    }
    return low + 1
  }
}

const STRICT = { disallowComments: true, allowTrailingComma: false }

/** Reads the text of a document strictly: no comments, no fields it does not know; not at all what is too much. */
export function readDocument(given: string): ReadDocument {
  const text = given.replace(/^\uFEFF/, '')
  const tooMuch = tooMuchJson(Buffer.from(text), MOST_VALUES)
  if (tooMuch) return { refused: [{ line: null, field: 'text', message: tooMuch }] }
  let value: unknown
  try {
    value = parse(text, { protoAction: 'error', constructorAction: 'error' })
  } catch {
    return { refused: [notWhole(text)] }
  }
  // Where things stand is worked out once it is asked for.
  let places: { readonly root: Node | undefined; readonly line: (offset: number) => number } | null = null
  const lineOf = (path: readonly (string | number)[]): number | null => {
    places ??= { root: parseTree(text, [], STRICT), line: linesOf(text) }
    if (!places.root) return null
    // A field that is missing has no place of its own: the nearest thing that has one.
    for (let n = path.length; n >= 0; n--) {
      const node = findNodeAtLocation(places.root, path.slice(0, n))
      if (node) return places.line(node.offset)
    }
    return null
  }
  const version = (value as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > DOCUMENT_VERSION)
    return {
      refused: [
        {
          line: lineOf(['version']),
          field: 'version',
          message: `version ${DOCUMENT_VERSION} or older; this is version ${version}, written by a newer program`,
        },
      ],
    }
  return checkedDocument(value, lineOf)
}

/** Where a text stops being JSON. */
function notWhole(text: string): Refused {
  const errors: ParseError[] = []
  visit(text, { onError: (error, offset, length) => void errors.push({ error, offset, length }) }, STRICT)
  const [first] = errors
  return {
    line: first ? linesOf(text)(first.offset) : 1,
    field: 'text',
    message: `whole JSON: ${first ? words(printParseErrorCode(first.error)) : 'nothing is there'}; it is cut off or was changed by hand`,
  }
}

interface Issue {
  readonly path: readonly PropertyKey[]
  readonly message: string
}

const isCollection = (name: string): name is ResourceName =>
  (RESOURCE_NAMES as readonly string[]).includes(name)

/** Reads a document by its contract, some rows at a time: what is wrong throughout is not told a million times. */
function byContract(
  value: unknown,
): { readonly document: YpsoDocument } | { readonly issues: readonly Issue[] } {
  const given = (value as { rows?: unknown } | null)?.rows
  const rows =
    given && typeof given === 'object' && !Array.isArray(given)
      ? Object.fromEntries(
          Object.entries(given).map(([name, list]: [string, unknown]) => [
            name,
            // What an older program wrote may lack what has been added since.
            isCollection(name) && Array.isArray(list) ? list.map((r) => completedRow(name, r)) : list,
          ]),
        )
      : given
  const lists = Object.entries(rows && typeof rows === 'object' ? rows : {}).filter(
    (e): e is [string, unknown[]] => Array.isArray(e[1]) && e[1].length > IN_ONE_GO,
  )
  const without = Object.fromEntries(lists.map(([name]) => [name, []]))
  const checked = rows && typeof rows === 'object' && !Array.isArray(rows) ? { ...rows, ...without } : rows
  const whole = YpsoDocument.safeParse(
    value && typeof value === 'object' && 'rows' in value ? { ...value, rows: checked } : value,
  )
  const issues: Issue[] = whole.success ? [] : [...whole.error.issues]
  const read: Record<string, unknown[]> = {}
  for (const [name, list] of lists) {
    if (!isCollection(name)) continue
    const schema = YpsoDocument.shape.rows.shape[name]
    if (list.length > MOST_ROWS) issues.push({ path: ['rows', name], message: `at most ${MOST_ROWS} rows` })
    const out: unknown[] = (read[name] = [])
    for (let i = 0; i < list.length && issues.length < MOST; i += IN_ONE_GO) {
      const part = schema.safeParse(list.slice(i, i + IN_ONE_GO))
      if (part.success) out.push(...(part.data ?? []))
      else
        issues.push(
          ...part.error.issues.map((x) => {
            const [at, ...rest] = x.path
            return { message: x.message, path: ['rows', name, Number(at) + i, ...rest] }
          }),
        )
    }
  }
  if (issues.length || !whole.success) return { issues }
  const { data } = whole
  return { document: { ...data, rows: { ...data.rows, ...read } } as unknown as YpsoDocument }
}

/** A document by its contract; what is not as it says is named with its line. */
export function checkedDocument(
  value: unknown,
  lineOf: (path: readonly (string | number)[]) => number | null,
): ReadDocument {
  const read = byContract(value)
  if ('document' in read) return { document: read.document, lineOf }
  return {
    refused: read.issues.slice(0, MOST).map((i) => {
      const path = i.path.map((p) => (typeof p === 'symbol' ? String(p) : p))
      return { line: lineOf(path), field: path.join('.'), message: i.message }
    }),
  }
}

/** PropertyNameExpected → property name expected. */
const words = (code: string): string => code.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()

import { DOCUMENT_VERSION, YpsoDocument } from '@ypsometer/contract'
import { findNodeAtLocation, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser'

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

const lineAt = (text: string, offset: number): number => text.slice(0, offset).split('\n').length

/** Reads the text of a document strictly: no comments, no fields it does not know. */
export function readDocument(text: string): ReadDocument {
  const errors: ParseError[] = []
  const root = parseTree(text.replace(/^\uFEFF/, ''), errors, {
    disallowComments: true,
    allowTrailingComma: false,
  })
  const [first] = errors
  if (!root || first)
    return {
      refused: [
        {
          line: first ? lineAt(text, first.offset) : 1,
          field: 'text',
          message: `whole JSON: ${first ? words(printParseErrorCode(first.error)) : 'nothing is there'}; it is cut off or was changed by hand`,
        },
      ],
    }
  const lineOf = (path: readonly (string | number)[]): number | null => {
    // A field that is missing has no place of its own: the nearest thing that has one.
    for (let n = path.length; n >= 0; n--) {
      const node: Node | undefined = findNodeAtLocation(root, path.slice(0, n))
      if (node) return lineAt(text, node.offset)
    }
    return null
  }
  const value = JSON.parse(text.replace(/^\uFEFF/, '')) as unknown
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

/** A document by its contract; what is not as it says is named with its line. */
export function checkedDocument(
  value: unknown,
  lineOf: (path: readonly (string | number)[]) => number | null,
): ReadDocument {
  const read = YpsoDocument.safeParse(value)
  if (read.success) return { document: read.data as unknown as YpsoDocument, lineOf }
  return {
    refused: read.error.issues.slice(0, MOST).map((i) => {
      const path = i.path.map((p) => (typeof p === 'symbol' ? String(p) : p))
      return { line: lineOf(path), field: path.join('.'), message: i.message }
    }),
  }
}

/** PropertyNameExpected → property name expected. */
const words = (code: string): string => code.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()

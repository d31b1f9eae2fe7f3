import { GLOSSARY } from './glossary'
import { usePanel } from './usePanel'
import { Words } from './Words'

type Entry = (typeof GLOSSARY)[number]

const FORMS = GLOSSARY.flatMap((entry) =>
  [entry.term, ...(entry.forms ?? [])].map((form) => ({ entry, form: form.toLowerCase() })),
).sort((a, b) => b.form.length - a.form.length)

/** The longest term of the glossary in a text, as whole words, and where it stands. */
export function termIn(
  text: string,
): { readonly entry: Entry; readonly at: number; readonly length: number } | null {
  const low = text.toLowerCase()
  for (const { entry, form } of FORMS) {
    const at = low.search(new RegExp(`(?<![\\w-])${form.replace(/[()±]/g, '\\$&')}(?![\\w-])`))
    if (at >= 0) return { entry, at, length: form.length }
  }
  return null
}

/** Words in which a term of the glossary is met: pressed, it says what it means. */
export function Explained({ children }: { readonly children: string }) {
  const found = termIn(children)
  if (!found) return children
  const { entry, at, length } = found
  return (
    <>
      {children.slice(0, at)}
      <TermButton entry={entry}>{children.slice(at, at + length)}</TermButton>
      {children.slice(at + length)}
    </>
  )
}

function TermButton({ entry, children }: { readonly entry: Entry; readonly children: string }) {
  const { anchor, props, panel } = usePanel<HTMLButtonElement>()
  return (
    <>
      <button
        ref={anchor}
        type="button"
        title="What this word means"
        className="cursor-help underline decoration-dotted decoration-1 underline-offset-3 hover:decoration-solid"
        {...props}
      >
        {children}
      </button>
      {panel(`Meaning of ${entry.term.toLowerCase()}`, entry.term, () => (
        <p className="mt-1 font-normal normal-case">
          <Words sentence={entry.meaning} />
        </p>
      ))}
    </>
  )
}

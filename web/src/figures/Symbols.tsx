/** A letter or word, an underscore, and what stands below it: u_A, c_N, M_ion. */
const SUBSCRIPT = /([\p{L}\u0304]+)_(\p{L}+|\d+)/gu

/** Symbols as they are set: quantities in italics with their subscripts upright, everything else as it is. */
export function Symbols({ text }: { readonly text: string }) {
  const parts: React.ReactNode[] = []
  let from = 0
  for (const m of text.matchAll(SUBSCRIPT)) {
    parts.push(
      text.slice(from, m.index),
      <span key={m.index}>
        <i>{m[1]}</i>
        <sub>{m[2]}</sub>
      </span>,
    )
    from = m.index + m[0].length
  }
  return <>{[...parts, text.slice(from)]}</>
}

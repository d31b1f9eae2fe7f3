import { saidText, type Sentence } from '@ypsometer/core/figures/figure'
import { decimal, units } from '../settings/settings'
import { pointed } from './pointed'
import { FigureView } from './FigureView'

/** A generated sentence with its numbers set as numbers, in the reader's units; those with a working open it. */
export function Words({ sentence }: { readonly sentence: Sentence }) {
  const system = units.use()
  const sign = decimal.use()
  return sentence.map((part, i) => {
    if (typeof part === 'string') return part
    if (part.figure)
      return (
        <FigureView key={i} figure={part.figure} inline said {...(part.digits && { digits: part.digits })} />
      )
    return (
      <span key={i} className="num font-medium whitespace-nowrap">
        {pointed(saidText(part, system), sign)}
      </span>
    )
  })
}

import { closedBodyFigure } from '@ypsometer/core/judging/tankBalance'
import type { TankBalance } from '@ypsometer/core/judging/balanceWords'
import type { Sentence } from '@ypsometer/core/figures/figure'
import { FigureView } from '../figures/FigureView'
import { Words } from '../figures/Words'
import { Sheet } from '../figures/Sheet'

export const TONES = { note: '', caution: 'text-warning', against: 'text-error' } as const
const TONE_WORDS = { note: 'note', caution: 'caution', against: 'against' } as const

/** A tank at rest, number by number against its limits. */
export function Balance({
  study,
  body,
  children,
}: {
  readonly study: TankBalance
  /** Water its body shuts in (m³); Infinity where it shuts in none, null where nobody knows. */
  readonly body: number | null
  readonly children?: React.ReactNode
}) {
  const closed = closedBodyFigure(study, body)
  return (
    <section aria-labelledby="balance-title">
      <h3 id="balance-title">Water quality at steady state</h3>
      <Sheet className="mt-1">
        {study.lines.map(({ figure, limit }) => (
          <tr key={figure.id}>
            <td>
              {figure.label}
              {limit && <span className="muted block text-[0.82rem]">{limit.words}</span>}
            </td>
            <td
              className={`r ${limit?.said ? `font-medium ${limit.doubtful ? 'text-warning' : 'text-error'}` : ''}`}
            >
              {Number.isFinite(figure.value) ? <FigureView figure={figure} inline /> : 'without end'}
              {limit?.said && <span className="block text-[0.8rem]">{limit.said}</span>}
            </td>
          </tr>
        ))}
        {closed && (
          <tr>
            <td>{closed.label}</td>
            <td className="r">
              <FigureView figure={closed} inline />
            </td>
          </tr>
        )}
      </Sheet>
      <Said list={study.sentences} />
      {children}
    </section>
  )
}

/** Sentences with the tone of each before it. */
export function Said({
  list,
}: {
  readonly list: readonly { readonly tone: keyof typeof TONES; readonly sentence: Sentence }[]
}) {
  return (
    <ul className="mt-2 max-w-prose">
      {list.map((s, i) => (
        <li key={i} className="rule-b grid grid-cols-[4.6rem_minmax(0,1fr)] gap-x-3 py-1.5 text-[0.95rem]">
          <span className={`kicker pt-0.5 ${TONES[s.tone]}`}>{TONE_WORDS[s.tone]}</span>
          <p>
            <Words sentence={s.sentence} />
          </p>
        </li>
      ))}
    </ul>
  )
}

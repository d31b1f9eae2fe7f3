import { toMediaFigure, whyDue, type SchoolSeason } from '@ypsometer/core/clogging/report'
import type { School } from '@ypsometer/core/path/rules/types'
import { showPercent } from '@ypsometer/core/units/format'
import { FigureView } from '../../figures/FigureView'
import { right, Sheet } from '../../figures/Sheet'

const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  'strain-first': 'Mechanical first',
  'polish-last': 'Fine pad last',
  'prefilter-low': 'External pre-filter',
}

/** Every school with a pre-filter and without: when it is due, what blinds, what comes to the media, what work. */
export function SchoolTable({ schools }: { readonly schools: readonly SchoolSeason[] }) {
  const past = schools.find((s) => s.run.answers.due?.why === 'past')
  return (
    <div
      className="overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label="Layering rules over a year, table"
    >
      <Sheet
        className="mt-2 min-w-[36rem]"
        columns={[
          'Layering rule',
          'Pre-filter',
          right('Clean after'),
          'Clogs first',
          right('To the bio media'),
          right('Flow, 90 days'),
          right('Minutes a year'),
        ]}
      >
        {schools.map(({ school, prefilter, run, minutes }) => {
          const { due, blind } = run.answers
          const first = run.days[0]?.flow ?? 0
          return (
            <tr key={`${school}-${prefilter}`}>
              <td>{SCHOOL_WORDS[school]}</td>
              <td>{prefilter ? 'rinsed weekly' : 'none'}</td>
              <td className="r num" title={whyDue(run.answers) ?? undefined}>
                {due ? `${Math.round(due.day)} d${due.why === 'past' ? ' *' : ''}` : 'over a year'}
              </td>
              <td>{blind && blind.day !== null ? run.layers[blind.layer]?.label : '–'}</td>
              <td className="r">
                <FigureView
                  figure={{ ...toMediaFigure(run), id: `to-media-${school}-${prefilter}` }}
                  inline
                  said
                  digits={2}
                />
              </td>
              <td className="r num">{showPercent(first > 0 ? (run.days[90]?.flow ?? 0) / first : 0)}</td>
              <td className="r">
                {minutes ? (
                  <FigureView
                    figure={{ ...minutes, id: `minutes-${school}-${prefilter}` }}
                    inline
                    said
                    digits={2}
                  />
                ) : (
                  <span className="muted text-[0.85rem]">not timed</span>
                )}
              </td>
            </tr>
          )
        })}
      </Sheet>
      <p className="muted mt-1 text-[0.88rem]">
        Middle values before any check-up. They may be off by a factor of three.
      </p>
      {past && <p className="muted mt-1 text-[0.88rem]">* {whyDue(past.run.answers)}.</p>}
    </div>
  )
}

import { leftFigure, toMediaFigure, type ForecastReport } from '@ypsometer/core/clogging/report'
import { inline, type Sentence } from '@ypsometer/core/figures/figure'
import { Words } from '../../figures/Words'
import { DaySlider } from '../../fillPath/DaySlider'
import { DIRT_DAYS } from '../../fillPath/useDirt'

interface Props {
  readonly run: ForecastReport | null
  readonly day: number
  readonly onDay: (day: number) => void
  /** The tank it is on; null: one of the litres it carries. */
  readonly tank: string | null
}

/** A slider over days: where the dirt will sit in the fill as it lies now. */
export function Dirt({ run, day, onDay, tank }: Props) {
  const said: Sentence | null = run && [
    inline(leftFigure(run, day)),
    ` of the flow left on ${tank ?? 'a tank of its supported size'}; `,
    inline(toMediaFigure(run)),
    ' of the dirt reaches the bio media.',
  ]
  return (
    <div className="mt-3">
      <DaySlider day={day} until={DIRT_DAYS} onDay={onDay} />
      <p className="muted mt-1 min-h-6 text-[0.92rem]" aria-live="polite">
        {day > 0 && said && <Words sentence={said} />}
        {day === 0 && 'Drag to see where dirt collects.'}
      </p>
    </div>
  )
}

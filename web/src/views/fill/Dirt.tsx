import { leftFigure, toMediaFigure, type ToldRun } from '@ypsometer/core/clogging/told'
import { sayFigure, type Sentence } from '@ypsometer/core/figures/figure'
import { Words } from '../../figures/Words'
import { DaySlider } from '../../pathway/DaySlider'
import { DIRT_DAYS } from '../../pathway/useDirt'

interface Props {
  readonly run: ToldRun | null
  readonly day: number
  readonly onDay: (day: number) => void
  /** The tank it is on; null: one of the litres it carries. */
  readonly tank: string | null
}

/** A slider over days: where the dirt will sit in the fill as it lies now. */
export function Dirt({ run, day, onDay, tank }: Props) {
  const said: Sentence | null = run && [
    sayFigure(leftFigure(run, day)),
    ` of the flow is left on ${tank ?? 'a tank of the litres it carries'}; `,
    sayFigure(toMediaFigure(run)),
    ' of the dirt caught comes to the media.',
  ]
  return (
    <div className="mt-3">
      <DaySlider day={day} until={DIRT_DAYS} onDay={onDay} />
      <p className="muted mt-1 min-h-6 text-[0.92rem]" aria-live="polite">
        {day > 0 && said && <Words sentence={said} />}
        {day === 0 && 'Move it to see where the dirt will sit.'}
      </p>
    </div>
  )
}

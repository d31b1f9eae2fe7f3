import { nitrogenIn } from '@ypsometer/core/trials/water-test/find'
import { kitCounts, type KitCounts } from '../settings/settings'

const WORDS: readonly (readonly [KitCounts, string])[] = [
  ['ion', 'The ion (NH₄, NO₂, NO₃)'],
  ['nitrogen', 'Nitrogen (…-N)'],
]
const SUFFIX: Readonly<Record<KitCounts, Readonly<Record<Substance, string>>>> = {
  ion: { ammonia: 'NH₄', nitrite: 'NO₂', nitrate: 'NO₃' },
  nitrogen: { ammonia: 'as N', nitrite: 'as N', nitrate: 'as N' },
}

export type Substance = 'ammonia' | 'nitrite' | 'nitrate'
/** Name of a substance with what of it is counted: “Nitrate, NO₃”, “Nitrate, as N”. */
export const substanceCounted = (q: Substance, counts: KitCounts): string =>
  `${q.slice(0, 1).toUpperCase()}${q.slice(1)}, ${SUFFIX[counts][q]}`

/** Asks what the card of a test kit counts; kept on this device, and the same wherever a kit is read. */
export function KitQuestion({
  large,
  onChoose,
}: {
  readonly large?: boolean
  /** Hears the answer as well. */
  readonly onChoose?: (counts: KitCounts) => void
}) {
  const counts = kitCounts.use()
  return (
    <div>
      <p className="kicker">What does the card of your test kit count?</p>
      <div className="mt-1 flex flex-wrap gap-2" role="group" aria-label="The test kit counts">
        {WORDS.map(([v, words]) => (
          <button
            key={v}
            type="button"
            aria-pressed={counts === v}
            className={`btn ${large ? 'h-14 px-4 text-[1.05rem]' : 'btn-sm'} ${counts === v ? 'btn-neutral' : ''}`}
            onClick={() => {
              kitCounts.set(v)
              onChoose?.(v)
            }}
          >
            {words}
          </button>
        ))}
      </div>
      {counts === '' && (
        <p className="muted mt-1 text-[0.92rem]">It is printed on the card or in its leaflet.</p>
      )}
    </div>
  )
}

/** A substance as this reader’s kit counts it: its name with what is counted, and nitrogen in it (kg N/kg). */
export function useKit(): (q: Substance) => {
  readonly label: string
  readonly scale: number
} {
  const counts = kitCounts.use()
  return (q) => ({
    label: substanceCounted(q, counts || 'nitrogen'),
    scale: counts === 'ion' ? nitrogenIn(q) : 1,
  })
}

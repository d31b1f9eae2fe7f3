import { interiorOf } from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors'
import type { Figure } from '@ypsometer/core/figures'
import { fullWeight, HEAVY, LITRE_NAMES, volumeAudit, type VolumeAudit } from '@ypsometer/core/volumes'
import { LITRE_WORDS, Swatch } from '../../cutaway/patterns'
import { FigureView } from '../../figures/FigureView'
import { Num, Percent } from '../../figures/Num'
import { useDossierContext } from '../dossier/Dossier'

/** The volume audit: each litre under its one name, closure against the water fill, and the label's media volume. */
export function VolumeSheet() {
  const { dossier } = useDossierContext()
  const interior = interiorOf(dossier)
  if (!interior) return null
  let audit: VolumeAudit
  try {
    audit = volumeAudit(interior.chambers, interior.body)
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    return <p className="text-error">The litres cannot be added up yet: {error.message}</p>
  }
  const unmeasured = interior.chambers.filter((c) => !c.measured).length
  const claim = dossier.claims.find((c) => c.quantity === 'media-volume')?.value ?? null
  const price = dossier.claims.find((c) => c.quantity === 'price')
  const weight = fullWeight(interior.body, audit.gross)
  return (
    <section aria-labelledby="volume-title">
      <h2 id="volume-title">Where the litres are</h2>
      {unmeasured > 0 && (
        <p className="text-warning text-[0.92rem]">
          {unmeasured} of {interior.chambers.length} chambers still have the usual sizes, not this unit’s.
        </p>
      )}
      <Shares audit={audit} />
      <table className="sheet mt-2">
        <tbody>
          {LITRE_NAMES.filter((n) => audit.byName[n] > 0).map((n) => (
            <tr key={n}>
              <td>
                <Swatch id="v" name={n} /> {LITRE_WORDS[n]}
              </td>
              <td className={`r ${n === 'wasted' ? 'text-error font-medium' : ''}`}>
                <Num si={audit.byName[n]} dimension="volume" />
              </td>
              <td className="r w-20">
                <Percent share={audit.byName[n] / audit.gross} />
              </td>
            </tr>
          ))}
          <tr className="font-bold">
            <td>All of it</td>
            <td className="r" colSpan={2}>
              <FigureView figure={grossFigure(audit)} />
            </td>
          </tr>
        </tbody>
      </table>
      <dl className="mt-3 grid gap-x-8 gap-y-2 sm:grid-cols-2">
        <Item label="Closes against the water fill">
          {audit.closure ? (
            <span className={audit.closure.closes ? '' : 'text-warning'}>
              <Percent share={audit.closure.difference} />{' '}
              {audit.closure.closes
                ? 'apart: it closes (limit 1 %)'
                : 'apart: more than 1 %, so a chamber is missing or misread'}
            </span>
          ) : (
            <span className="muted">not filled and weighed yet</span>
          )}
        </Item>
        <Item label="Usable for media, against the label">
          <Num si={audit.usableMedia} dimension="volume" />
          {claim !== null && (
            <span className={claim > audit.usableMedia * 1.02 ? 'text-error' : ''}>
              {' '}
              of <Num si={claim} dimension="volume" /> claimed, <Percent share={audit.usableMedia / claim} />
            </span>
          )}
        </Item>
        <Item label="Usable per litre of outside bulk">
          <span className="num">{audit.usablePerBulk.toFixed(2)}</span> L
        </Item>
        {price?.amountMinor && price.currency && (
          <Item label={`Usable litres per 100 ${price.currency}`}>
            <span className="num">
              {((audit.usableMedia * 1000) / (price.amountMinor / 10000)).toFixed(2)}
            </span>{' '}
            L
          </Item>
        )}
        {weight && (
          <Item label="Weight ready to run">
            <Num si={weight.mass} dimension="mass" />{' '}
            <span className="muted">{weight.weighed ? 'weighed' : 'computed: empty plus its water'}</span>
          </Item>
        )}
      </dl>
      {weight && weight.mass >= HEAVY && (
        <p className="text-warning mt-2 font-medium">
          Full it passes {HEAVY} kg: empty it first, or lift it as two.
        </p>
      )}
    </section>
  )
}

const Item = ({ label, children }: { readonly label: string; readonly children: React.ReactNode }) => (
  <div>
    <dt className="kicker">{label}</dt>
    <dd>{children}</dd>
  </div>
)

/** All litres as one bar, each name in its texture. */
function Shares({ audit }: { readonly audit: VolumeAudit }) {
  let from = 0
  return (
    <svg viewBox="0 0 400 26" className="mt-2 block h-7 w-full" preserveAspectRatio="none" aria-hidden="true">
      {LITRE_NAMES.map((n) => {
        const w = (audit.byName[n] / audit.gross) * 400
        const x = from
        from += w
        return (
          w > 0 && (
            <rect
              key={n}
              x={x}
              y="1"
              width={w}
              height="24"
              fill={n === 'wasted' ? 'var(--color-error)' : 'var(--color-base-content)'}
              fillOpacity={n === 'wasted' ? 0.85 : OPACITY[n]}
              stroke="var(--color-base-100)"
              strokeWidth="1"
            />
          )
        )
      })}
    </svg>
  )
}
const OPACITY = {
  biological: 0.75,
  mechanical: 0.5,
  chemical: 0.9,
  void: 0.16,
  channel: 0.26,
  machinery: 0.36,
  wasted: 1,
} as const

const grossFigure = (a: VolumeAudit): Figure => ({
  id: 'gross',
  label: 'Gross internal volume',
  value: a.gross,
  dimension: 'volume',
  provenance: 'computed',
  uncertainty: 2 * a.uncertainty,
  formula: 'V = Σ chambers;  u = √Σ u², tape ± 1 mm rectangular',
  working: a.chambers.map((c, i) => ({
    symbol: String(i + 1),
    label: c.chamber.name,
    value: c.volume,
    dimension: 'volume' as const,
  })),
  source: 'solid mensuration; GUM, JCGM 100:2008',
})

import { fromMinor } from '@ypsometer/core/units/money'
import { interiorOf } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import { put, putFigure } from '@ypsometer/core/figures/figure'
import {
  closureFigure,
  grossFigure,
  litreFigure,
  perBulkFigure,
  perPriceFigure,
  shareFigure,
  usableFigure,
  weightFigure,
} from '@ypsometer/core/volumes/figures'
import { HEAVY, LITRE_NAMES, volumeAudit, type VolumeAudit } from '@ypsometer/core/volumes/interior'
import { printedFigure } from '@ypsometer/core/trials/printed'
import { LITRE_WORDS, Swatch } from '../../cutaway/patterns'
import { FigureView } from '../../figures/FigureView'
import { useDossierContext } from '../../frame/dossier'
import { Sheet } from '../../figures/Sheet'

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
  const row = dossier.claims.find((c) => c.quantity === 'media-volume')
  const claim = row?.value
    ? printedFigure({ quantity: 'media-volume', value: row.value, where: row.printedOn })
    : null
  const price = dossier.claims.find((c) => c.quantity === 'price')
  const weight = weightFigure(interior.body, audit.water)
  const closure = closureFigure(audit)
  return (
    <section aria-labelledby="volume-title" className="as-needed">
      <h2 id="volume-title">Volume by use</h2>
      {unmeasured > 0 && (
        <p className="text-warning text-[0.92rem]">
          Typical sizes, not measured: {unmeasured} of {interior.chambers.length} chambers. Do not publish
          these litres.
        </p>
      )}
      <Shares audit={audit} />
      <Sheet className="mt-2">
        {LITRE_NAMES.filter((n) => audit.byName[n] > 0).map((n) => (
          <tr key={n}>
            <td>
              <Swatch id="v" name={n} /> {LITRE_WORDS[n]}
            </td>
            <td className={`r ${n === 'wasted' ? 'text-error font-medium' : ''}`}>
              <FigureView figure={litreFigure(audit, n, LITRE_WORDS[n])} inline />
            </td>
            <td className="r w-20">
              <FigureView
                figure={shareFigure(
                  `share-${n}`,
                  `${LITRE_WORDS[n]}, share of all`,
                  put('part', LITRE_WORDS[n], audit.byName[n], 'volume', 'computed'),
                  put('all', 'gross internal volume', audit.gross, 'volume', 'computed'),
                )}
                inline
              />
            </td>
          </tr>
        ))}
        <tr className="font-bold">
          <td>Total</td>
          <td className="r" colSpan={2}>
            <FigureView figure={grossFigure(audit)} />
          </td>
        </tr>
      </Sheet>
      <dl className="mt-3 grid gap-x-8 gap-y-2 sm:grid-cols-2">
        <Item label="Check against water fill">
          {audit.closure && closure ? (
            <span className={audit.closure.closes ? '' : 'text-warning'}>
              <FigureView figure={closure} inline said />{' '}
              {audit.closure.closes
                ? 'apart, within the 1 % limit'
                : 'off: a chamber is missing or measured wrong'}
            </span>
          ) : (
            <span className="muted">not filled and weighed yet</span>
          )}
        </Item>
        <Item label="Media space">
          <FigureView figure={usableFigure(audit)} inline said />
          {claim && (
            <span className={claim.value > audit.usableMedia * 1.02 ? 'text-error' : ''}>
              {' '}
              of <FigureView figure={claim} inline said /> on the label,{' '}
              <FigureView
                figure={shareFigure(
                  'usable-of-claim',
                  'Usable, share of the claim',
                  put('usable', 'usable for media', audit.usableMedia, 'volume', 'computed'),
                  putFigure('claim', claim),
                )}
                inline
                said
              />
            </span>
          )}
        </Item>
        <Item label="Usable per litre of outside bulk">
          <FigureView figure={perBulkFigure(audit)} inline digits={2} said /> L
        </Item>
        {price?.amountMinor && price.currency && (
          <Item label={`Usable litres per 100 ${price.currency}`}>
            <FigureView
              figure={perPriceFigure(audit, fromMinor(price.amountMinor, price.currency), price.currency)}
              inline
            />
          </Item>
        )}
        {weight && (
          <Item label="Weight ready to run">
            <FigureView figure={weight} />
          </Item>
        )}
      </dl>
      {weight && weight.value >= HEAVY && (
        <p className="text-warning mt-2 font-medium">
          Full it passes {HEAVY} kg. Empty it first, or lift it together.
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

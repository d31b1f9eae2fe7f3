import { usedChecks, usedWorth } from '@ypsometer/core/visits/used'
import { faultsOf } from '@ypsometer/core/parts/vocabulary'
import { showMoney } from '../../fields/MoneyField'
import { useDossierContext } from '../../frame/dossier'

/** A unit that was used before it came: what was done, what to look at first, what it is worth with what it needs. */
export function UsedUnit() {
  const { dossier } = useDossierContext()
  const unit = dossier.specimens.at(-1)
  if (unit?.state !== 'used') return null
  const price = dossier.claims.findLast((c) => c.quantity === 'price')
  const needs = dossier.parts.flatMap((p) =>
    p.sparePriceMinor !== null && p.spareCurrency === price?.currency && faultsOf(p).length > 0
      ? [{ name: p.name, minor: p.sparePriceMinor }]
      : [],
  )
  const worth = usedWorth(price?.amountMinor ?? null, needs)
  return (
    <section aria-labelledby="used-title" className="as-needed">
      <h2 id="used-title">Used unit</h2>
      <p className="max-w-3xl">
        {unit.monthsInUse === null ? 'Used for an unknown time' : `Used for ${unit.monthsInUse} months`}{' '}
        before it came{unit.condition && `: ${unit.condition}`}.{' '}
        {worth && price?.currency && (
          <>
            Worth about{' '}
            <span className="num font-medium">
              {showMoney(Math.round(worth.value / 100) * 100, price.currency)} ±{' '}
              {showMoney(Math.round((worth.uncertainty ?? 0) / 100) * 100, price.currency)}
            </span>{' '}
            with {needs.length ? needs.map((n) => n.name.toLowerCase()).join(', ') : 'no spares'} needed (half
            the list price less spares; common practice).
          </>
        )}
      </p>
      <ol className="mt-1 max-w-3xl list-decimal pl-5 text-[0.95rem]">
        {usedChecks(dossier.model.kind).map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ol>
    </section>
  )
}

import type { HouseRule } from '@ypsometer/contract'
import { CRITERIA, CRITERION, type Criterion } from '@ypsometer/core/advice/criteria'
import { EXTRAS, EXTRA_WORDS } from '@ypsometer/core/advice/rule'
import { fromMinor, minorDigits } from '@ypsometer/core/units/money'
import { DayNoted } from '../../fields/DayNoted'
import { today } from '../../settings/when'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { Rates } from '../../frame/Rates'
import { Swings } from './Swings'
import { Sheet } from '../../figures/Sheet'

/** Weights of advice, when two filters are demanded, and what money and minutes are worth. */
export function AdviceSection({ house }: { readonly house: HouseRule }) {
  const { advice } = house
  const write = (more: Partial<HouseRule['advice']>): void =>
    changeRow('house-rules', house, { advice: { ...advice, ...more } })
  const weigh = (c: Criterion, weight: number): void => write({ weights: { ...advice.weights, [c]: weight } })
  const all = CRITERIA.reduce((sum, c) => sum + advice.weights[c], 0)
  const units = (minor: number): number => fromMinor(minor, advice.currency)
  const minor = (v: number): number => Math.round(v * 10 ** minorDigits(advice.currency))
  const money = { dimension: 'ratio', min: 0, max: 1e6 } as const
  return (
    <section aria-labelledby="advice-title" className="space-y-3">
      <h2 id="advice-title">What counts in advice</h2>
      <p className="muted max-w-3xl">
        Each criterion scores 0 to 1 in a straight line, times its weight. Only the proportions count.
      </p>
      <Parked row={house} field="advice" what="What counts in advice" />
      <Sheet
        className="max-w-3xl"
        columns={[
          'Criterion',
          { label: 'Weight', className: 'w-28' },
          { label: 'Share', className: 'r w-20' },
        ]}
      >
        {CRITERIA.map((c) => (
          <tr key={c}>
            <td>
              {upper(CRITERION[c].name)}
              <span className="muted block text-[0.85rem]">{CRITERION[c].worth}</span>
            </td>
            <td>
              <QuantityInput
                label={`Weight of ${CRITERION[c].name}`}
                si={advice.weights[c]}
                dimension="ratio"
                min={0}
                max={100}
                onCommit={(v) => weigh(c, v)}
              />
            </td>
            <td className="r num">{all > 0 ? `${Math.round((advice.weights[c] / all) * 100)} %` : '–'}</td>
          </tr>
        ))}
      </Sheet>
      <Swings weights={advice.weights} write={(weights) => write({ weights })} />
      <h3>Two filters, one always running</h3>
      <TwoFilters advice={advice} write={write} />
      <h3>Money and minutes</h3>
      <Money advice={advice} units={units} money={money} write={write} minor={minor} />
      <h3>What is needed besides</h3>
      <p className="muted max-w-3xl text-[0.95rem]">
        Put into the price to run a filter. What has no price here is named, and the sum is “from”.
      </p>
      <div className="grid max-w-3xl gap-x-8 gap-y-3 sm:grid-cols-3">
        {EXTRAS.map((x) => (
          <Amount key={x} label={`${upper(EXTRA_WORDS[x])}, ${advice.currency}; 0 for none`}>
            <QuantityInput
              label={`Price of ${EXTRA_WORDS[x]}`}
              si={units(advice.extras?.[x] ?? 0)}
              {...money}
              onCommit={(v) => {
                const { [x]: _old, ...rest } = advice.extras ?? {}
                write({ extras: v > 0 ? { ...rest, [x]: minor(v) } : rest })
              }}
            />
          </Amount>
        ))}
      </div>
      <Rates house={house} />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={advice.cutFloss}
          onChange={(e) => write({ cutFloss: e.target.checked })}
        />
        cartridge frames are kept, and floss is cut for them
      </label>
    </section>
  )
}

const upper = (s: string): string => s.slice(0, 1).toUpperCase() + s.slice(1)

const Amount = ({ label, children }: { readonly label: string; readonly children: React.ReactNode }) => (
  <div>
    <span className="kicker block">{label}</span>
    {children}
  </div>
)

/** Prices of the house, and what is dear to it. */
function Money({
  advice,
  units,
  money,
  write,
  minor,
}: {
  readonly advice: HouseRule['advice']
  readonly units: (minor: number) => number
  readonly money: { readonly dimension: 'ratio'; readonly min: 0; readonly max: 1000000 }
  readonly write: (more: Partial<HouseRule['advice']>) => void
  readonly minor: (v: number) => number
}) {
  return (
    <div className="grid max-w-3xl gap-x-8 gap-y-3 sm:grid-cols-3">
      <Amount label={`A kilowatt-hour, ${advice.currency}`}>
        <QuantityInput
          label="Price of a kilowatt-hour"
          si={units(advice.tariffMinor ?? 0)}
          {...money}
          onCommit={(v) =>
            write({
              tariffMinor: v > 0 ? v * 10 ** minorDigits(advice.currency) : null,
              tariffOn: v > 0 ? today() : null,
            })
          }
        />
        {advice.tariffMinor !== null && (
          <DayNoted
            label="Price of a kilowatt-hour as of"
            on={advice.tariffOn ?? null}
            onChange={(tariffOn) => write({ tariffOn })}
          />
        )}
      </Amount>
      <Amount label={`A minute of work, ${advice.currency}; 0 for none`}>
        <QuantityInput
          label="Price of a minute of work"
          si={units(advice.minuteMinor ?? 0)}
          {...money}
          onCommit={(v) => write({ minuteMinor: v > 0 ? v * 10 ** minorDigits(advice.currency) : null })}
        />
      </Amount>
      <Amount label="Years it is owned">
        <QuantityInput
          label="Years it is owned"
          si={advice.years}
          dimension="ratio"
          min={1}
          max={30}
          whole
          onCommit={(years) => write({ years })}
        />
      </Amount>
      <Amount label={`Expensive price, ${advice.currency}`}>
        <QuantityInput
          label="Expensive price"
          si={units(advice.dearPriceMinor)}
          {...money}
          min={0.01}
          onCommit={(v) => write({ dearPriceMinor: Math.max(1, minor(v)) })}
        />
      </Amount>
      <Amount label={`expensive running cost (0 points), ${advice.currency}`}>
        <QuantityInput
          label="expensive running cost (0 points)"
          si={units(advice.dearYearMinor)}
          {...money}
          min={0.01}
          onCommit={(v) => write({ dearYearMinor: Math.max(1, minor(v)) })}
        />
      </Amount>
      <label className="block">
        <span className="kicker block">Currency of these</span>
        <input
          className="field w-24 uppercase"
          maxLength={3}
          defaultValue={advice.currency}
          onBlur={(e) => {
            const code = e.target.value.trim().toUpperCase()
            if (/^[A-Z]{3}$/.test(code)) {
              if (code !== advice.currency) write({ currency: code })
            } else e.target.value = advice.currency
          }}
        />
      </label>
    </div>
  )
}

/** When two filters are demanded, and whether a sponge may go over an intake. */
function TwoFilters({
  advice,
  write,
}: {
  readonly advice: HouseRule['advice']
  readonly write: (more: Partial<HouseRule['advice']>) => void
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-8 gap-y-2">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={advice.twoWhenCrowded}
          onChange={(e) => write({ twoWhenCrowded: e.target.checked })}
        />
        demanded on crowded tanks
      </label>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={advice.twoFrom !== null}
          onChange={(e) => write({ twoFrom: e.target.checked ? 0.473 : null })}
        />
        demanded from
      </label>
      {advice.twoFrom !== null && (
        <span className="w-28">
          <QuantityInput
            label="Two filters from"
            si={advice.twoFrom}
            dimension="volume"
            min={0.01}
            max={20}
            onCommit={(twoFrom) => write({ twoFrom })}
          />
        </span>
      )}
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={advice.addsSponge}
          onChange={(e) => write({ addsSponge: e.target.checked })}
        />
        a sponge may be put over an open intake
      </label>
    </div>
  )
}

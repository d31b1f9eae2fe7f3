import { errorMessage } from '../../api/errorMessage'
import type { Fitted, Hookup } from '@ypsometer/contract'
import { heaterCheck, lampCheck } from '@ypsometer/core/path/fitted'
import type { Outcome } from '@ypsometer/core/path/outcome'
import type { Sentence } from '@ypsometer/core/figures/figure'
import { showPercent } from '@ypsometer/core/units/format'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { DayNoted } from '../../fields/DayNoted'
import { MoneyInput } from '../../fields/MoneyInput'
import { QuantityInput } from '../../fields/QuantityInput'
import { Words } from '../../figures/Words'
import { today } from '../../settings/when'
import { FromShelf } from './FromShelf'

/** Fittings on the hoses besides inlet and outlets. */
type Extra = Required<Pick<Fitted, 'second' | 'lamp' | 'heater'>>

const START: Extra = {
  second: {
    label: 'The other filter',
    arrangement: 'series',
    running: true,
    shutOffHead: 1.5,
    maxFlow: 800 / 3.6e6,
    exponent: 1.75,
    lossCoefficient: 10,
  },
  lamp: {
    output: 2,
    lampLength: 0.15,
    sleeveRadius: 0.012,
    chamberRadius: 0.03,
    ageing: 0.7,
    sleeve: 0.9,
    transmittance: 0.9,
  },
  heater: { watts: 300 },
}

type Field = readonly [
  key: string,
  label: string,
  dimension: Dimension,
  unit: string | undefined,
  min: number,
  max: number,
]
const FIELDS: Readonly<Record<keyof Extra, readonly Field[]>> = {
  second: [
    ['shutOffHead', 'Its maximum head', 'head', undefined, 0.01, 100],
    ['maxFlow', 'Its flow at zero head', 'flow', undefined, 1e-7, 1],
    ['lossCoefficient', 'Filter and media, K at 16 mm', 'ratio', undefined, 0, 1e6],
  ],
  lamp: [
    ['output', 'Germicidal output, not lamp watts', 'power', undefined, 0.01, 500],
    ['lampLength', 'Lit length', 'length', 'mm', 0.01, 2],
    ['sleeveRadius', 'Sleeve, outer radius', 'length', 'mm', 0.001, 0.2],
    ['chamberRadius', 'Chamber, inner radius', 'length', 'mm', 0.002, 0.5],
    ['ageing', 'Light left by ageing', 'ratio', '%', 0.01, 1],
    ['sleeve', 'Let through by the sleeve', 'ratio', '%', 0.01, 1],
    ['transmittance', 'Left after 1 cm of water', 'ratio', '%', 0.01, 1],
  ],
  heater: [['watts', 'Heater', 'power', undefined, 1, 5000]],
}
const TITLES: Readonly<Record<keyof Extra, string>> = {
  second: 'Second filter on the same hoses',
  lamp: 'A UV-C lamp',
  heater: 'An inline heater',
}

/** Fittings on the hoses, and what the real flow means for them. */
export function OnTheHoses({ hookup, outcome }: { readonly hookup: Hookup; readonly outcome: Outcome }) {
  const { fitted } = hookup
  const write = (key: keyof Extra, value: unknown): void => {
    const { [key]: _old, ...rest } = fitted
    changeRow('hookups', hookup, { fitted: value === null ? rest : { ...rest, [key]: value } })
  }
  return (
    <section aria-labelledby="hoses-title" className="as-needed">
      <h2 id="hoses-title">Also on the hoses of {hookup.name.toLowerCase()}</h2>
      <Parked row={hookup} field="fitted" what="What is fitted on these hoses" />
      {(Object.keys(TITLES) as (keyof Extra)[]).map((key) => {
        const value = fitted[key] as Record<string, number | string | boolean> | undefined
        return (
          <div key={key} className="mt-2">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox"
                checked={value !== undefined}
                onChange={(e) => write(key, e.target.checked ? START[key] : null)}
              />
              {TITLES[key]}
            </label>
            {value && (
              <div className="mt-1 ml-7">
                {key === 'second' && <FromShelf onTake={(taken) => write(key, { ...value, ...taken })} />}
                {key === 'second' && (
                  <div className="flex flex-wrap gap-x-5">
                    <select
                      className="field !w-auto"
                      aria-label="How the second filter is joined"
                      value={String(value.arrangement)}
                      onChange={(e) => write(key, { ...value, arrangement: e.target.value })}
                    >
                      <option value="series">behind this one, on the same hose</option>
                      <option value="beside">in a branch beside this one</option>
                    </select>
                    <label className="flex items-center gap-2">
                      <input
                        type="checkbox"
                        className="checkbox"
                        checked={Boolean(value.running)}
                        onChange={(e) => write(key, { ...value, running: e.target.checked })}
                      />
                      running
                    </label>
                  </div>
                )}
                {key === 'second' && <p className="mt-1">{String(value.label)}</p>}
                <div className="grid gap-x-5 gap-y-1 sm:grid-cols-3">
                  {FIELDS[key].map(([field, label, dimension, unit, min, max]) => (
                    <div key={field}>
                      <span className="kicker">{label}</span>
                      <QuantityInput
                        label={label}
                        si={Number(value[field])}
                        dimension={dimension}
                        {...(unit && { unit })}
                        min={min}
                        max={max}
                        onCommit={(v) => write(key, { ...value, [field]: v })}
                      />
                    </div>
                  ))}
                </div>
                {key === 'lamp' && (
                  <div className="mt-1">
                    <span className="kicker block">A new lamp costs</span>
                    <MoneyInput
                      label="A new lamp costs"
                      value={fitted.lamp?.price ?? null}
                      usual="EUR"
                      onCommit={(price) => {
                        const { price: _old, ...rest } = value
                        write(key, price ? { ...rest, price: { ...price, on: today() } } : rest)
                      }}
                    />
                    {fitted.lamp?.price && (
                      <DayNoted
                        label="Price of the lamp as of"
                        on={fitted.lamp.price.on ?? null}
                        onChange={(on) => write(key, { ...value, price: { ...fitted.lamp?.price, on } })}
                      />
                    )}
                  </div>
                )}
                {sentences(key, fitted, outcome).map((s, i) => (
                  <p key={i} className="mt-1">
                    {typeof s === 'string' ? <span className="text-error">{s}</span> : <Words sentence={s} />}
                  </p>
                ))}
              </div>
            )}
          </div>
        )
      })}
    </section>
  )
}

function sentences(key: keyof Extra, fitted: Fitted, o: Outcome): readonly (Sentence | string)[] {
  try {
    if (key === 'heater' && fitted.heater) {
      const h = heaterCheck(fitted.heater.watts, o.flow)
      return h.enough
        ? h.sentences
        : ['The flow is too small for this heater: it would boil in its sleeve.', ...h.sentences]
    }
    if (key === 'lamp' && fitted.lamp) return lampCheck(fitted.lamp, o.flow).sentences
    if (key === 'second' && o.second !== null) {
      if (o.second < 0)
        return [
          `Stopped, it lets ${showPercent(-o.second / (o.flow - o.second))} of the water run back round the loop: it needs a check valve or a closed tap.`,
        ]
      return [[`Through it: `, { si: o.second, dimension: 'flow' }, '.']]
    }
  } catch (error) {
    return [errorMessage(error)]
  }
  return []
}

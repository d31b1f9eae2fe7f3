import type { Many } from '@ypsometer/core/advice'
import { saidText } from '@ypsometer/core/figures'
import { preferredUnit, type UnitSystem } from '@ypsometer/core/units'
import { useId } from 'react'
import { QuantityInput } from '../../fields/QuantityInput'
import { units } from '../../frame/settings'
import { STANDINGS, type Ask } from './useAsk'

/** Volumes people name at a counter, in their own unit. */
const SIZES: Readonly<Record<UnitSystem, readonly number[]>> = {
  metric: [20, 60, 120, 180, 240, 400],
  us: [5, 10, 20, 40, 55, 75],
  imperial: [5, 10, 20, 30, 50, 80],
}
const STANDING_WORDS = {
  outside: 'on hoses, in a cabinet',
  rim: 'on the rim',
  inside: 'in the tank',
  beneath: 'a sump under it',
} as const
const MANY_WORDS: Readonly<Record<Many, string>> = { few: 'few', usual: 'as usual', many: 'many' }
const NO_SIZES = { l: null, w: null, h: null } as const
const SIDES = [
  ['l', 'length', 'Length'],
  ['w', 'width', 'Width'],
  ['h', 'height', 'Water height'],
] as const
/** Loudest levels that are asked for (dB), most minutes a month, budgets in whole units. */
const NOISE = [32, 38] as const
const WORK = [5, 15] as const
const BUDGETS = [30, 80, 150, 300] as const

/** The question, tap by tap. Each is a group of large keys; what is asked stands in the address. */
export function Taps({ ask }: { readonly ask: Ask }) {
  const { tank, litres, sizes, stock, told, wishes, rule, set } = ask
  const system = units.use()
  const volumeUnit = preferredUnit('volume', system)
  return (
    <div className="space-y-5">
      {ask.tanks.length > 0 && (
        <label className="block">
          <span className="kicker">The tank</span>
          <select
            className="select mt-1 min-h-12 w-full"
            value={tank?.id ?? ''}
            onChange={(e) => set({ tank: e.target.value || null, stock: null })}
          >
            <option value="">One that is not on record</option>
            {ask.tanks.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {!tank && (
        <Group name="How much water">
          {SIZES[system]
            .map((n) => n * volumeUnit.factor)
            .map((v) => (
              <Key
                key={v}
                on={!sizes && Math.abs(litres - v) < 1e-9}
                onTap={() => set({ water: String(v), ...NO_SIZES })}
              >
                <span className="num">{saidText({ si: v, dimension: 'volume' }, system)}</span>
              </Key>
            ))}
          <span className="w-32">
            <QuantityInput
              label="Other volume"
              si={litres}
              dimension="volume"
              min={0.001}
              max={20}
              onCommit={(v) => set({ water: String(v), ...NO_SIZES })}
            />
          </span>
          <Key on={sizes !== null} onTap={() => set(sizes ? NO_SIZES : { l: '0.8', w: '0.35', h: '0.4' })}>
            by its sizes
          </Key>
          {sizes && (
            <span className="flex flex-wrap gap-3">
              {SIDES.map(([key, side, label]) => (
                <span key={key} className="w-24">
                  <span className="kicker block">{label}</span>
                  <QuantityInput
                    label={label}
                    si={sizes[side]}
                    dimension="length"
                    unit="cm"
                    min={0.05}
                    max={20}
                    onCommit={(v) => set({ [key]: String(v) })}
                  />
                </span>
              ))}
            </span>
          )}
        </Group>
      )}
      <Group name="Who lives there">
        {ask.stocks.map((s) => (
          <Key key={s.id} on={s.id === stock?.id} onTap={() => set({ stock: s.id })}>
            {s.label}
          </Key>
        ))}
      </Group>
      <Group name="How many, for its size">
        {(['few', 'usual', 'many'] as const).map((m) => (
          <Key key={m} on={told.many === m} onTap={() => set({ many: m === 'usual' ? null : m })}>
            {MANY_WORDS[m]}
          </Key>
        ))}
      </Group>
      <Group name="Plants, and weak swimmers">
        <Key on={told.planted === true} onTap={() => set({ planted: told.planted ? null : '1' })}>
          planted
        </Key>
        <Key on={told.weak} onTap={() => set({ weak: told.weak ? null : '1' })}>
          some swim weakly
        </Key>
      </Group>
      <Group name="Where it can stand">
        {STANDINGS.map((s) => {
          const now = wishes.stands ?? []
          const next = now.includes(s) ? now.filter((x) => x !== s) : [...now, s]
          return (
            <Key key={s} on={now.includes(s)} onTap={() => set({ at: next.join(',') || null })}>
              {STANDING_WORDS[s]}
            </Key>
          )
        })}
      </Group>
      <Group name="Noise, at most">
        {NOISE.map((db) => (
          <Key
            key={db}
            on={wishes.noise === db}
            onTap={() => set({ noise: wishes.noise === db ? null : String(db) })}
          >
            {db === NOISE[0] ? 'bedroom' : 'living room'}, {db} dB
          </Key>
        ))}
      </Group>
      <Group name="Work a month, at most">
        {WORK.map((min) => (
          <Key
            key={min}
            on={wishes.minutes === min}
            onTap={() => set({ work: wishes.minutes === min ? null : String(min) })}
          >
            {min} min
          </Key>
        ))}
      </Group>
      <Group name={`Budget in ${rule.currency}, at most`}>
        {BUDGETS.map((b) => (
          <Key
            key={b}
            on={wishes.budget?.minor === b * 100}
            onTap={() => set({ budget: wishes.budget?.minor === b * 100 ? null : String(b * 100) })}
          >
            {b}
          </Key>
        ))}
      </Group>
    </div>
  )
}

function Group({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  const id = useId()
  return (
    <div role="group" aria-labelledby={id}>
      <p className="kicker" id={id}>
        {name}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-2">{children}</div>
    </div>
  )
}

interface KeyProps {
  readonly on: boolean
  readonly onTap: () => void
  readonly children: React.ReactNode
}

const Key = ({ on, onTap, children }: KeyProps) => (
  <button
    type="button"
    aria-pressed={on}
    onClick={onTap}
    className={`rounded-field min-h-12 border px-3.5 py-1.5 text-left leading-tight ${
      on ? 'bg-primary text-primary-content border-primary font-bold' : 'border-base-300 hover:bg-base-200'
    }`}
  >
    {children}
  </button>
)

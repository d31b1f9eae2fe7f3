import type { Many } from '@ypsometer/core/advice/quickTank'
import { saidText } from '@ypsometer/core/figures/figure'
import type { TankShape } from '@ypsometer/core/tanks/volume'
import { preferredUnit, type Unit, type UnitSystem } from '@ypsometer/core/units/dimensions'
import { Key, KeyGroup } from '../../fields/Keys'
import { QuantityInput } from '../../fields/QuantityInput'
import { units } from '../../settings/settings'
import { sizeKey, STANDINGS, type Ask } from './useAsk'
import type { AddressChanges } from '../../frame/useAddress'

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
const SHAPE_WORDS = {
  box: 'a box',
  'bow-front': 'a bow front',
  cylinder: 'a cylinder',
  corner: 'a corner tank',
} as const satisfies Readonly<Record<TankShape['shape'], string>>
const SHAPES = Object.keys(SHAPE_WORDS) as TankShape['shape'][]
/** Sizes of all shapes by their names; the height is that of the water. */
const SIDES = {
  length: 'Length',
  width: 'Width',
  bowWidth: 'Width in the middle',
  diameter: 'Diameter',
  side: 'Side at the wall',
  endPanel: 'End panel',
  height: 'Water height',
} as const
type Side = keyof typeof SIDES
const NO_SIZES = { shape: null, ...Object.fromEntries(Object.keys(SIDES).map((k) => [sizeKey(k), null])) }
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
            <option value="">A new tank</option>
            {ask.tanks.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {!tank && (
        <HowMuchWater system={system} volumeUnit={volumeUnit} sizes={sizes} litres={litres} set={set} />
      )}
      {!tank && <ShapeAndSizes sizes={sizes} set={set} />}
      <KeyGroup name="Stocking">
        {ask.stocks.map((s) => (
          <Key key={s.id} on={s.id === stock?.id} onTap={() => set({ stock: s.id })}>
            {s.label}
          </Key>
        ))}
      </KeyGroup>
      <KeyGroup name="How many, for its size">
        {(['few', 'usual', 'many'] as const).map((m) => (
          <Key key={m} on={told.many === m} onTap={() => set({ many: m === 'usual' ? null : m })}>
            {MANY_WORDS[m]}
          </Key>
        ))}
      </KeyGroup>
      <KeyGroup name="Plants, and weak swimmers">
        <Key on={told.planted === true} onTap={() => set({ planted: told.planted ? null : '1' })}>
          planted
        </Key>
        <Key on={told.weak} onTap={() => set({ weak: told.weak ? null : '1' })}>
          some swim weakly
        </Key>
      </KeyGroup>
      <KeyGroup name="Where it can stand">
        {STANDINGS.map((s) => {
          const now = wishes.stands ?? []
          const next = now.includes(s) ? now.filter((x) => x !== s) : [...now, s]
          return (
            <Key key={s} on={now.includes(s)} onTap={() => set({ at: next.join(',') || null })}>
              {STANDING_WORDS[s]}
            </Key>
          )
        })}
      </KeyGroup>
      <KeyGroup name="Noise, at most">
        {NOISE.map((db) => (
          <Key
            key={db}
            on={wishes.noise === db}
            onTap={() => set({ noise: wishes.noise === db ? null : String(db) })}
          >
            {db === NOISE[0] ? 'bedroom' : 'living room'}, {db} dB
          </Key>
        ))}
      </KeyGroup>
      <KeyGroup name="Work a month, at most">
        {WORK.map((min) => (
          <Key
            key={min}
            on={wishes.minutes === min}
            onTap={() => set({ work: wishes.minutes === min ? null : String(min) })}
          >
            {min} min
          </Key>
        ))}
      </KeyGroup>
      <KeyGroup name={`Budget in ${rule.currency}, at most`}>
        {BUDGETS.map((b) => (
          <Key
            key={b}
            on={wishes.budget?.minor === b * 100}
            onTap={() => set({ budget: wishes.budget?.minor === b * 100 ? null : String(b * 100) })}
          >
            {b}
          </Key>
        ))}
      </KeyGroup>
    </div>
  )
}

/** Sides of a shape, height last. */
const sidesOf = (shape: TankShape): readonly (readonly [Side, number])[] =>
  (Object.keys(SIDES) as Side[]).flatMap((side) =>
    side in shape ? [[side, (shape as unknown as Record<Side, number>)[side]] as const] : [],
  )

/** A shape, and its sizes inside. */
function ShapeAndSizes({
  sizes,
  set,
}: {
  readonly sizes: TankShape | null
  readonly set: (changes: AddressChanges) => void
}) {
  return (
    <KeyGroup name="Or its shape and inside sizes">
      {SHAPES.map((shape) => (
        <Key
          key={shape}
          on={sizes?.shape === shape}
          onTap={() => set(sizes?.shape === shape ? NO_SIZES : { shape })}
        >
          {SHAPE_WORDS[shape]}
        </Key>
      ))}
      {sizes && (
        <span className="flex flex-wrap gap-3">
          {sidesOf(sizes).map(([side, m]) => (
            <span key={side} className="w-24">
              <span className="kicker block">{SIDES[side]}</span>
              <QuantityInput
                label={SIDES[side]}
                si={m}
                dimension="length"
                unit="cm"
                min={side === 'endPanel' ? 0 : 0.05}
                max={20}
                onCommit={(v) => set({ [sizeKey(side)]: String(v) })}
              />
            </span>
          ))}
        </span>
      )}
    </KeyGroup>
  )
}

/** Usual sizes of tanks, one tap each. */
function HowMuchWater({
  system,
  volumeUnit,
  sizes,
  litres,
  set,
}: {
  readonly system: UnitSystem
  readonly volumeUnit: Unit
  readonly sizes: TankShape | null
  readonly litres: number
  readonly set: (changes: AddressChanges) => void
}) {
  return (
    <KeyGroup name="How much water">
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
    </KeyGroup>
  )
}

import { put, putFigure, inline, type Figure, type InlineNumber, type Sentence } from '../figures'
import type { Segment } from '../hydraulics'
import { FILTERS, type FilterKind } from '../kinds'
import type { TankRecord } from '../tanks/tankRecord'

/** Sizes, mass and power of a model that have to fit (m, kg, W); null for what nobody has measured. */
export interface FittingModel {
  readonly kind: FilterKind
  readonly outerWidth: number
  readonly outerDepth: number
  readonly outerHeight: number
  readonly heightWithHoses: number | null
  /** How far a rim filter stands out behind the tank; its depth where nobody has measured. */
  readonly overhang: number | null
  /** Opening of the hook that goes over the rim, and how far the intake reaches down from the rim. */
  readonly hookOpening: number | null
  readonly intakeReach: number | null
  readonly fullMass: Figure | null
  /** Water its body holds. */
  readonly water: Figure | null
  readonly hoses: readonly Segment[]
  readonly parts: readonly { readonly name: string; readonly material: string }[]
  readonly heater: { readonly watts: number; readonly length?: number | undefined } | null
}

/** One finding of the fit: a hard no, a caution, well, or not known yet. Boxes name what collides in the drawing. */
export interface FitFinding {
  readonly id: string
  readonly level: 'stop' | 'caution' | 'ok' | 'unknown'
  readonly sentence: Sentence
}

/** Hose left over at each end for lifting the body out (m). Common practice, no source: 20 to 25 cm. */
export const HOSE_SLACK = 0.22
/** Heaviest that one person should lift (kg). Common practice; local rules on manual handling come first. */
const LIFT = 20
/** Room above a canister for its hoses where nobody has measured it with them on (m; common practice, no source). */
const HOSE_ROOM = 0.1
/** Least and most height of the water over a canister's body for it to prime (m; common practice, no source). */
const PRIMING = { least: 0.15, most: 1.8 } as const
/** Heat for each litre and kelvin over the room (W; common practice, no source: 1 W/L for ten kelvin). */
const HEAT = 0.1
/** Classes that a kilogram carries no more litres of are large, or messy (common practice, no source). */
const LARGE_FISH = 50
/** An internal body should take no more of the swim room than this (common practice, no source). */
const BULK = 0.05

/** A length to the whole millimetre, with the two it is the difference of where it is one. */
function mm(
  label: string,
  si: number,
  of?: readonly [more: number, less: number] | null,
  assumed?: string,
): InlineNumber {
  return inline(
    {
      id: `fit-${label.toLowerCase().replace(/\W+/g, '-')}`,
      label,
      value: Math.round(si * 1000) / 1000,
      dimension: 'length',
      unit: 'mm',
      provenance: of ? 'computed' : assumed ? 'rule' : 'measured',
      ...(assumed && { assumed }),
      ...(of && {
        formula: 'the one − the other',
        working: [
          put('one', 'the larger', of[0], 'length', 'measured'),
          put('other', 'the smaller', of[1], 'length', 'measured'),
        ],
      }),
    },
    4,
  )
}

type Add = (id: string, level: FitFinding['level'], ...sentence: Sentence) => void

/**
 * One measure against the room there is: by how much it fails, or fits; unknown where either is not on record. Room
 * that is only assumed stops nothing: it is to be measured.
 */
function against(
  add: Add,
  id: string,
  what: string,
  need: number | null,
  room: number | null,
  missing: string,
  assumed?: string,
): void {
  if (room === null || need === null) return add(id, 'unknown', `${what}: ${missing}.`)
  if (need > room)
    return add(
      id,
      assumed ? 'caution' : 'stop',
      `${what}: `,
      mm('Too little', need - room, [need, room]),
      ' too little. Needs ',
      mm('Needed', need),
      ', there is ',
      mm('There is', room, null, assumed),
      assumed ? '. Measure the tank.' : '.',
    )
  const spare = mm('To spare', room - need, [room, need], assumed)
  if (spare.si === 0) add(id, 'ok', `${what}: fits exactly, with nothing to spare.`)
  else add(id, 'ok', `${what}: fits, with `, spare, ' to spare.')
}

/** Does a model fit a tank? Every finding with the missing millimetres. */
export function fitFindings(tank: TankRecord, m: FittingModel): readonly FitFinding[] {
  const out: FitFinding[] = []
  const add: Add = (id, level, ...sentence) => void out.push({ id, level, sentence })
  const traits = FILTERS[m.kind]
  if (traits.stands === 'rim') onRim(tank, m, add)
  if (traits.stands === 'outside') inCabinet(tank, m, add)
  if (traits.stands === 'inside') insideTank(tank, m, add)
  if (traits.intake && m.intakeReach !== null) {
    const deep = tank.height - tank.substrateDepth
    const least = tank.height - tank.waterLevel + 0.02
    const { sizesAssumed } = tank
    const level = sizesAssumed ? 'caution' : 'stop'
    if (m.intakeReach > deep)
      add(
        'intake',
        level,
        'Intake ',
        mm('Too long', m.intakeReach - deep, [m.intakeReach, deep], sizesAssumed),
        ' too long: it touches the bottom.',
      )
    else if (m.intakeReach < least)
      add(
        'intake',
        level,
        'Intake ',
        mm('Too short', least - m.intakeReach, [least, m.intakeReach], sizesAssumed),
        ' too short: it draws air.',
      )
    else if (m.intakeReach < (tank.height - tank.substrateDepth) / 2)
      add('intake', 'caution', 'Intake ends in the upper half of the water. Dirt collects below it.')
    else add('intake', 'ok', 'Intake reaches the lower half of the water.')
  }
  if (m.fullMass && m.fullMass.value > LIFT)
    add(
      'weight',
      'caution',
      'Weighs ',
      inline(m.fullMass),
      ` full: more than the ${LIFT} kg one person should lift. Empty it first, or lift it together.`,
    )
  if (m.water && traits.stands !== 'inside') addsWater(tank, m.water, add)
  materials(tank, m, add)
  if (m.heater) heater(tank, m, m.heater, add)
  return out
}

function onRim(tank: TankRecord, m: FittingModel, add: Add): void {
  const behind = m.overhang ?? m.outerDepth
  against(add, 'wall-gap', 'Gap to the wall', behind, tank.wallGap, 'measure the gap behind the tank')
  if (m.hookOpening !== null && tank.rimThickness !== null)
    against(add, 'rim', 'Hook on the rim', tank.rimThickness, m.hookOpening, '')
  else add('rim', 'unknown', 'Hook on the rim: measure the rim here and the hook under Inside.')
  const fall = tank.height - tank.waterLevel
  if (fall > 0.05)
    add(
      'fall',
      'caution',
      'The water stands ',
      mm('Below the rim', fall, [tank.height, tank.waterLevel]),
      ' below the rim. The return falls that far, and you hear it.',
    )
  if (tank.covered) add('lid', 'caution', 'The lid needs a cut-out for it.')
}

function inCabinet(tank: TankRecord, m: FittingModel, add: Add): void {
  const tall = m.heightWithHoses ?? m.outerHeight + HOSE_ROOM
  against(
    add,
    'cabinet-height',
    'Height in the cabinet, hoses included',
    tall,
    tank.cabinetHeight,
    'measure the cabinet inside',
  )
  // It may stand either way round.
  const [long, short] = [Math.max(m.outerWidth, m.outerDepth), Math.min(m.outerWidth, m.outerDepth)]
  const { cabinetWidth: w, cabinetDepth: d } = tank
  const known = w !== null && d !== null
  against(
    add,
    'cabinet-length',
    'Width in the cabinet',
    long,
    known ? Math.max(w, d) : null,
    'measure the cabinet inside',
  )
  if (known) against(add, 'cabinet-depth', 'Depth in the cabinet', short, Math.min(w, d), '')
  if (tank.doorWidth !== null) against(add, 'door', 'Width through the door', short, tank.doorWidth, '')
  const { bottomHeight } = tank
  if (bottomHeight === null)
    return add('hose', 'unknown', 'Hose length: measure the height of the tank base above the filter.')
  const over = bottomHeight + tank.height - m.outerHeight
  const runs = m.hoses.flatMap((s) => (s.kind === 'hose' ? [s] : []))
  for (const hose of runs)
    against(
      add,
      `hose-${hose.id}`,
      `${hose.label}, with slack to lift the filter out`,
      over + HOSE_SLACK,
      hose.length,
      '',
    )
  if (runs.some((h) => h.clear))
    add('clear-hose', 'caution', 'Clear hose: keep it out of daylight, or algae will narrow it.')
  const head = bottomHeight + tank.waterLevel - m.outerHeight
  if (head < PRIMING.least)
    add(
      'priming',
      'stop',
      'Priming: the water stands ',
      mm('Water above the filter', head),
      ' above the filter; it needs at least ',
      mm('At least (common practice)', PRIMING.least),
      ' to fill by itself.',
    )
  else if (head > PRIMING.most)
    add(
      'priming',
      'caution',
      'Priming: the filter stands ',
      mm('Water above the filter', head),
      ' below the water. Most seals are not made for that depth.',
    )
  else
    add(
      'priming',
      'ok',
      'Priming: the water stands ',
      mm('Water above the filter', head),
      ' above the filter.',
    )
}

function insideTank(tank: TankRecord, m: FittingModel, add: Add): void {
  const deep = tank.waterLevel - tank.substrateDepth
  const { sizesAssumed } = tank
  against(add, 'immersed', 'Height under water', m.outerHeight, deep, '', sizesAssumed)
  const longer = Math.max(m.outerWidth, m.outerDepth)
  against(add, 'free-length', 'Length in the tank', longer, tank.length, '', sizesAssumed)
  const share = (m.outerWidth * m.outerDepth * m.outerHeight) / tank.water.value
  if (share > BULK)
    add(
      'bulk',
      'caution',
      'Takes up ',
      inline({
        id: 'bulk',
        label: 'Share of the swimming space',
        value: share,
        dimension: 'ratio',
        unit: '%',
        provenance: 'computed',
        formula: 'w · d · h ÷ V',
        working: [
          put('w', 'width', m.outerWidth, 'length', 'measured'),
          put('d', 'depth', m.outerDepth, 'length', 'measured'),
          put('h', 'height', m.outerHeight, 'length', 'measured'),
          putFigure('V', tank.water),
        ],
      }),
      ' of the swimming space.',
    )
}

function addsWater(tank: TankRecord, water: Figure, add: Add): void {
  add(
    'adds',
    'ok',
    'Adds ',
    inline(water),
    ' of water (',
    inline({
      id: 'adds-water',
      label: 'Water it adds to the tank',
      value: water.value / tank.water.value,
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      formula: 'V of the body ÷ V of the tank',
      working: [putFigure('body', water), putFigure('tank', tank.water)],
    }),
    ').',
  )
}

function materials(tank: TankRecord, { parts }: FittingModel, add: Add): void {
  for (const p of parts) {
    if (p.material === 'glass')
      add(`brittle-${p.name}`, 'caution', `${p.name}: glass. It can break when handled.`)
    if (p.material === 'soft plastic' && tank.stock.litresPerKilogram <= LARGE_FISH)
      add(
        `soft-${p.name}`,
        'caution',
        `${p.name}: soft plastic. Turtles and large fish can bite or pull it off.`,
      )
  }
  if (tank.salinity < 1) return
  const steel = parts.filter((p) => /steel/.test(p.material))
  for (const p of steel)
    add(
      `steel-${p.name}`,
      p.material === 'steel 316' ? 'caution' : 'stop',
      `${p.name}: ${p.material} in salt water rusts${p.material === 'steel 316' ? ' in time' : ' and poisons the animals'}.`,
    )
}

function heater(tank: TankRecord, m: FittingModel, h: NonNullable<FittingModel['heater']>, add: Add): void {
  if (h.length !== undefined)
    against(add, 'heater-length', 'Heater in the filter', h.length, m.outerHeight, '')
  if (tank.roomTemperature === null)
    add('heater-watts', 'unknown', 'Heater: enter the room temperature in winter.')
  else {
    const need = Math.max(0, tank.temperature - tank.roomTemperature) * tank.water.value * 1000 * HEAT
    add(
      'heater-watts',
      h.watts < need * 0.8 ? 'caution' : 'ok',
      'Heater: ',
      inline({ id: 'heater', label: 'Heater', value: h.watts, dimension: 'power', provenance: 'printed' }, 3),
      ' against about ',
      inline(
        {
          id: 'heat-needed',
          label: 'Heat this tank needs',
          value: need,
          dimension: 'power',
          provenance: 'rule',
          formula: 'P = 0.1 W · L · K over the room',
          working: [
            putFigure('V', tank.water),
            put('t', 'water', tank.temperature, 'temperature', 'measured'),
            put('room', 'in winter', tank.roomTemperature, 'temperature', 'measured'),
          ],
          source: 'common practice, no source',
        },
        2,
      ),
      ' for this tank in this room (rule of thumb).',
    )
  }
  add('heater-order', 'caution', 'Heater: switch it off first and on last. Never heat without flow.')
}

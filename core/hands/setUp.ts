import { FILTERS, type FilterKind } from '../kinds'
import type { CautionId } from '../teardown/cautions'
import type { Priming } from '../parts/vocabulary'
import { placeWords, type PlacedPart } from '../teardown/placing'
import type { StepState } from './vocabulary'
import { isFor, whichWords, type Which } from './which'

/** Parts of setting up, in their order. */
export const SET_UP_STAGES = [
  'inside',
  'close',
  'hoses',
  'place',
  'prime',
  'first hour',
  'next morning',
] as const
export type SetUpStage = (typeof SET_UP_STAGES)[number]

/** Grounds of a checklist: kind, way of priming, its own parts, what it is fitted with, its weight (kg). */
export interface SetUpSubject {
  readonly kind: FilterKind
  readonly primedBy: Priming | null
  readonly parts: readonly PlacedPart[]
  readonly trays: number
  readonly heater: boolean
  readonly lamp: boolean
  readonly fullMass: number | null
}

/** One thing to do: what, why, for which filters, and the caution that stands there. */
export interface HandStep {
  readonly id: string
  readonly stage: SetUpStage
  readonly says: string
  readonly why: string
  readonly which: Which
  readonly caution: CautionId | null
  /** It has to be right before the plug goes in. */
  readonly holds: boolean
}

/** A rule of a checklist; `says` gives none, one, or a step for each of its parts. */
interface SetUpRule {
  readonly id: string
  readonly stage: SetUpStage
  readonly which: Which
  readonly says:
    | string
    | ((s: SetUpSubject) => string | null | readonly (readonly [id: string, says: string])[])
  readonly why: string | ((part: string, s: SetUpSubject) => string)
  readonly caution?: CautionId
  readonly holds?: true
}

/** How a closed body is primed, by what the model has for it. */
const PRIMED: Readonly<Record<Priming, string>> = {
  fill: 'Fill the body three quarters with tank water, close it, open both taps',
  button: 'Open both taps and press its button until water comes and the gurgling ends',
  levers: 'Levers open until the body has filled by itself, then over to running',
}

const named = (s: SetUpSubject, what: string): readonly (readonly [string, string])[] =>
  s.parts.filter((p) => p.checklist === what).map((p) => [p.id, p.name])

/**
 * The rules of setting up, in the order of the work. Common practice, no source; where physics stands behind one, its
 * reason says so.
 */
export const SET_UP_RULES: readonly SetUpRule[] = [
  {
    id: 'rinse-media',
    stage: 'inside',
    which: 'all',
    says: ({ kind }) =>
      FILTERS[kind].foamIsMedia
        ? 'Squeeze the sponge out under water until it runs clear'
        : 'Rinse the media in a bucket until the water runs clear',
    why: 'New media shed dust. It clouds the tank and clogs the fine pad in days.',
  },
  {
    id: 'order',
    stage: 'inside',
    which: 'boxed',
    says: 'Layers in the order of the media setup, coarse at the inlet',
    why: 'Mechanical layers must come before the bio media they protect.',
  },
  {
    id: 'rim',
    stage: 'inside',
    which: 'opened',
    says: 'Nothing stands above a rim',
    why: 'An overfull stack holds the lid up. It rattles, and water bypasses the media.',
    holds: true,
  },
  {
    id: 'trays-level',
    stage: 'inside',
    which: 'opened',
    says: ({ trays }) =>
      trays ? `${trays === 1 ? 'The tray lies' : 'Trays lie'} level, each home on the one below` : null,
    why: 'A tray that is not level lets water past, and the head will not close.',
    holds: true,
  },
  {
    id: 'part',
    stage: 'inside',
    which: 'all',
    says: ({ parts }) => parts.filter((p) => p.goesIn.trim()).map((p) => [p.id, placeWords(p)]),
    why: (id, { parts }) => {
      const part = parts.find((p) => p.id === id)
      if (part?.canGoWrong)
        return `It can be fitted wrong: ${part.follows.trim() || 'what happens then was not noted'}.`
      return 'It goes in one way only.'
    },
    holds: true,
  },
  {
    id: 'impeller',
    stage: 'inside',
    which: 'pumped',
    says: 'Impeller turns freely on its shaft, its cover locked',
    why: 'One that is not seated rattles at once and wears its shaft.',
    caution: 'mains',
    holds: true,
  },
  {
    id: 'seal',
    stage: 'close',
    which: 'boxed',
    says: (s) =>
      named(s, 'o-ring').map(([id, name]) => [
        id,
        `${name}: wiped, looked at all round, greased with silicone grease`,
      ]),
    why: 'A dry, flat or gritty seal weeps; other greases swell rubber.',
    holds: true,
  },
  {
    id: 'quartz',
    stage: 'close',
    which: 'pumped',
    says: ({ lamp }) => (lamp ? 'Quartz sleeve whole and dry inside' : null),
    why: 'A cracked sleeve puts mains voltage beside water.',
    caution: 'quartz',
    holds: true,
  },
  {
    id: 'head-straight',
    stage: 'close',
    which: 'hoses',
    says: 'Head straight down on its seat, no lip of the seal showing',
    why: 'A head set down askew pinches the seal on one side.',
    holds: true,
  },
  {
    id: 'latches',
    stage: 'close',
    which: 'hoses',
    says: (s) =>
      named(s, 'clip').length ? 'Latches closed in opposite pairs' : 'Head locked, evenly all round',
    why: 'In pairs the seal is pressed evenly; one after the other it tilts.',
    holds: true,
  },
  {
    id: 'lid',
    stage: 'close',
    which: 'rim',
    says: 'Lid on, resting on the body and not on the media',
    why: 'A lid on media hums with the pump.',
  },
  {
    id: 'hose-cut',
    stage: 'hoses',
    which: 'hoses',
    says: 'Hose ends cut square',
    why: 'A crooked cut seals on one side only.',
    caution: 'sharp',
    holds: true,
  },
  {
    id: 'hose-soft',
    stage: 'hoses',
    which: 'hoses',
    says: 'Ends softened a minute in hot, not boiling water (about 88 °C)',
    why: 'A soft end goes on to the shoulder without force; boiling water ruins it.',
    caution: 'hot',
  },
  {
    id: 'hose-top',
    stage: 'hoses',
    which: 'hoses',
    says: 'Top ends first, then down to the taps; nuts hand-tight',
    why: 'So the run hangs as it will stay, and what is too long shows below.',
    holds: true,
  },
  {
    id: 'hose-slack',
    stage: 'hoses',
    which: 'hoses',
    says: 'Slack of 20 to 25 cm, no kink, no loop upward, nothing touching the cabinet',
    why: 'Room to lift it out; each kink costs flow, a high loop keeps air, and a wall that is touched hums.',
  },
  {
    id: 'tub',
    stage: 'place',
    which: 'hoses',
    says: 'A tub or a moisture alarm beneath it',
    why: 'The first leak is then a puddle in a tub.',
  },
  {
    id: 'below',
    stage: 'place',
    which: 'hoses',
    says: ({ fullMass }) =>
      `Body upright, below the water of the tank${fullMass !== null && fullMass >= 15 ? `; full it weighs about ${fullMass.toFixed(0)} kg, so fill it where it stands` : ''}`,
    why: 'It fills by siphon, and above the water the siphon cannot start.',
    caution: 'weight',
    holds: true,
  },
  {
    id: 'level',
    stage: 'place',
    which: 'rim',
    says: 'Hangs level, against its foot, lift tube pushed home',
    why: 'Askew it spills over one end and draws air at the joint of the tube.',
    holds: true,
  },
  {
    id: 'lip',
    stage: 'place',
    which: 'rim',
    says: 'Tank topped up to within a finger of the lip',
    why: 'The farther water falls, the louder it is, and the more air it takes down.',
  },
  {
    id: 'cups',
    stage: 'place',
    which: 'cups',
    says: 'Cups wet, pressed on clean glass, and pulled at once',
    why: 'A suction cup on algae lets go within seconds.',
  },
  {
    id: 'under',
    stage: 'place',
    which: 'pumpInside',
    says: 'Total under water, the outlet too unless it is meant to draw air',
    why: 'A pump that draws air runs hot and moves nothing.',
    caution: 'dry',
    holds: true,
  },
  {
    id: 'air-pump',
    stage: 'place',
    which: 'air',
    says: 'Air pump above the water, or a check valve in the line the right way round',
    why: 'When the power fails water siphons back through the line.',
    caution: 'air',
    holds: true,
  },
  {
    id: 'air-line',
    stage: 'place',
    which: 'air',
    says: 'Air line cut square and pushed home at every joint',
    why: 'Air that leaks at a fitting moves no water.',
  },
  {
    id: 'down',
    stage: 'place',
    which: 'sponge',
    says: 'Sponge squeezed under water until no bubbles come, and standing firm',
    why: 'A new sponge full of air floats up.',
  },
  {
    id: 'turning',
    stage: 'prime',
    which: 'moving',
    says: 'Media turn in every corner; air set so that none are blown out',
    why: 'Media that lie still clog, and what is blown out grinds in the tank.',
  },
  {
    id: 'drain-back',
    stage: 'place',
    which: 'beneath',
    says: 'Room left in the sump for all that drains back, and a hole in the return just under the water',
    why: 'With the pump off the return siphons until it draws air: what does not fit is on the floor.',
    holds: true,
  },
  {
    id: 'weir',
    stage: 'place',
    which: 'beneath',
    says: 'Teeth of the weir and the standpipe clear',
    why: 'A blocked weir fills the tank over its rim.',
    holds: true,
  },
  {
    id: 'drip-loop',
    stage: 'place',
    which: 'all',
    says: 'A drip loop in every cable, the socket above the water line, a residual-current device in front',
    why: 'Water runs along a cable to its lowest point: that must not be the socket.',
    caution: 'mains',
    holds: true,
  },
  {
    id: 'prime',
    stage: 'prime',
    which: 'hoses',
    says: ({ primedBy }) =>
      primedBy ? PRIMED[primedBy] : `${PRIMED.fill} (unknown for this model; this is the usual way)`,
    why: 'Its pump moves water and not air.',
    caution: 'siphon',
    holds: true,
  },
  {
    id: 'fill-body',
    stage: 'prime',
    which: 'rim',
    says: 'Body filled with tank water up to its lip',
    why: 'The pump cannot lift air: dry it runs hot and wears its shaft.',
    caution: 'dry',
    holds: true,
  },
  {
    id: 'fill-sump',
    stage: 'prime',
    which: 'beneath',
    says: 'Pump chamber filled to its running mark',
    why: 'A return pump that runs dry is spoilt in minutes.',
    caution: 'dry',
    holds: true,
  },
  {
    id: 'shake',
    stage: 'prime',
    which: 'pumpInside',
    says: 'Turned under water until no air comes',
    why: 'Air that stays in the pump rattles and keeps it from starting.',
  },
  {
    id: 'plug',
    stage: 'prime',
    which: 'all',
    says: ({ kind }) => (FILTERS[kind].hoses ? 'Plug in when the bubbles cease' : 'Plug in'),
    why: 'Water first, power after.',
  },
  {
    id: 'rock',
    stage: 'prime',
    which: 'hoses',
    says: 'Rocked on four sides until no more air comes',
    why: 'Air under trays and pads leaves only when it is tilted; left there it rattles for days.',
  },
  {
    id: 'heater-last',
    stage: 'prime',
    which: 'all',
    says: ({ heater }) =>
      heater
        ? 'The heater in the run goes on last, with water moving through it'
        : 'The tank’s heater goes on last',
    why: 'Out of water or in still water it cracks or scalds.',
    caution: 'heater',
  },
  {
    id: 'dry-joints',
    stage: 'first hour',
    which: 'hoses',
    says: 'Dry paper round head, taps and every joint stays dry',
    why: 'A weep shows on paper long before it makes a puddle.',
  },
  {
    id: 'dry-back',
    stage: 'first hour',
    which: 'rim',
    says: 'Back of the tank and the wall behind it are dry',
    why: 'Spray and a wrong tilt run down out of sight.',
  },
  {
    id: 'power-cut',
    stage: 'first hour',
    which: 'beneath',
    says: 'Pulled the plug once: what drains back stays in the sump',
    why: 'Test it now, not in the first power cut.',
  },
  {
    id: 'restart',
    stage: 'first hour',
    which: 'pumped',
    says: 'Unplugged for a minute and plugged in: it starts again by itself',
    why: 'A power cut can come when you are away.',
  },
  {
    id: 'first-flow',
    stage: 'first hour',
    which: 'all',
    says: 'Flow timed with the vessel',
    why: 'Every later check-up is compared with this number.',
  },
  {
    id: 'noise',
    stage: 'first hour',
    which: 'all',
    says: 'Quiet: no rattle, no gurgle',
    why: 'A noise that begins now is a part that is not seated.',
  },
  {
    id: 'morning-dry',
    stage: 'next morning',
    which: 'hoses',
    says: 'Tub and floor dry',
    why: 'A slow drip needs a night to show.',
  },
  {
    id: 'morning-level',
    stage: 'next morning',
    which: 'all',
    says: 'Water where it stood, flow as it was',
    why: 'What is missing went somewhere.',
  },
  {
    id: 'morning-holds',
    stage: 'next morning',
    which: 'cups',
    says: 'Still where it was put',
    why: 'Cups that let go do it in the first night.',
  },
  {
    id: 'ripen',
    stage: 'next morning',
    which: 'all',
    says: 'Plan water tests: a new filter takes four to six weeks to cycle',
    why: 'Clean is not cycled. Ammonia and nitrite tell when the filter is ready.',
  },
]

/** The checklist of one filter, in the order of the work. */
export function setUpSteps(s: SetUpSubject): readonly HandStep[] {
  const steps = SET_UP_RULES.filter((r) => isFor(r.which, s.kind)).flatMap((r): HandStep[] => {
    const said = typeof r.says === 'string' ? r.says : r.says(s)
    if (said === null) return []
    const each = typeof said === 'string' ? [['', said] as const] : said
    return each.map(([part, says]) => ({
      id: part ? `${r.id}:${part}` : r.id,
      stage: r.stage,
      says,
      why: typeof r.why === 'string' ? r.why : r.why(part, s),
      which: r.which,
      caution: r.caution ?? null,
      holds: r.holds ?? false,
    }))
  })
  return SET_UP_STAGES.flatMap((stage) => steps.filter((x) => x.stage === stage))
}

/** For which filters a step is, in words. */
export const stepFor = (step: Pick<HandStep, 'which'>): string => whichWords(step.which)

/** Ticks by the ids of steps, and why something was refused. */
export type TickedSteps = Readonly<Record<string, { readonly state: StepState; readonly why: string }>>

/** How far a set-up is, what is not right, and whether the plug may go in. */
export interface SetUpState {
  readonly done: number
  readonly of: number
  readonly refused: readonly HandStep[]
  /** Steps that have to be right before the plug goes in and are not, or were not looked at. */
  readonly before: readonly HandStep[]
  /** The first step nobody has answered; null: all are. */
  readonly next: HandStep | null
}

export function setUpState(steps: readonly HandStep[], ticked: TickedSteps): SetUpState {
  const stateOf = (s: HandStep): StepState | undefined => ticked[s.id]?.state
  const wanted = steps.filter((s) => stateOf(s) !== 'none')
  const plug = steps.findIndex((s) => s.id === 'plug')
  return {
    done: wanted.filter((s) => stateOf(s) === 'done').length,
    of: wanted.length,
    refused: wanted.filter((s) => stateOf(s) === 'refused'),
    before: wanted.filter((s) => s.holds && steps.indexOf(s) < plug && stateOf(s) !== 'done'),
    next: steps.find((s) => stateOf(s) === undefined) ?? null,
  }
}

import { RESOURCES, type CreatedOf } from '@ypsometer/contract'
import { setUpSubject } from '@ypsometer/contract/faults'
import { dayAfter } from '@ypsometer/core/days/days'
import { setUpSteps } from '@ypsometer/core/hands/setUp'
import type { PlacedPart } from '@ypsometer/core/teardown/placing'
import type { DemoBundle } from './index'
import { idOf } from './ids'

type Placed = Partial<Pick<PlacedPart, 'goesIn' | 'mark' | 'canGoWrong' | 'follows'>>
const only = (goesIn: string, mark = ''): Placed => ({ goesIn, mark, canGoWrong: false })
const wrong = (goesIn: string, follows: string, mark = ''): Placed => ({
  goesIn,
  mark,
  canGoWrong: true,
  follows,
})

/** How parts of some models go back, as they were tried. */
const PLACED: Readonly<Record<string, Readonly<Record<string, Placed>>>> = {
  'Ledger 700': {
    'Pump head': wrong('taps over the notch of the body', 'the latches close on one side only', 'two dots'),
    'Lower tray': only('its foot to the floor'),
    'Middle tray': only('tube through its ring'),
    'Upper tray': only('tube through its ring'),
    'Main O-ring': wrong('lip upwards', 'it weeps after a day', 'moulded “up”'),
    'Impeller cover': only('quarter turn to the stop'),
  },
  'Torrent 1400': {
    'Pump head': wrong('grey clip to the front', 'it seems shut and leaks when it is moved'),
    'Lower tray': wrong('short side to the tube', 'the stack stands askew and water bypasses it'),
    'Middle tray': wrong('short side to the tube', 'the stack stands askew and water bypasses it'),
    'Upper tray': only('handle up'),
    'Fine pad': wrong('notch over the tube', 'a gap beside the tube'),
    'Impeller cover': only('quarter turn to the stop'),
  },
  'Plainbody 1000': {
    'Pump head': only('lug in its slot'),
    'Lower tray': only('round: any way'),
    'Middle tray': only('round: any way'),
    'Upper tray': only('round: any way'),
    'Main O-ring': only('round section: any way'),
  },
  'Gale HB': {
    Cartridge: wrong('carbon side to the pump', 'it lifts, and water goes over it', 'arrow'),
    'Lift tube': only('flat side to the body'),
  },
}
export const placedOf = (model: string, part: string): Placed => PLACED[model]?.[part] ?? {}

/** A canister set up on a phone, with its trays refused. */
export function setUpsOf(models: DemoBundle['models'], tanks: DemoBundle['tanks']): CreatedOf<'set-ups'>[] {
  const m = models.find((x) => x.model.name === 'Torrent 1400')
  const tank = tanks.find((t) => t.name === 'Museum lobby, column')
  if (!m || !tank) return []
  const steps = setUpSteps(setUpSubject(m as unknown as Parameters<typeof setUpSubject>[0]))
  const state = (id: string) => {
    if (id === 'trays-level')
      return {
        state: 'refused' as const,
        why: 'The middle one rocks on the lower: opening hours, left so for now.',
      }
    return { state: 'done' as const, why: '' }
  }
  return [
    RESOURCES['set-ups'].Create.parse({
      id: idOf('set-up-torrent'),
      modelId: m.model.id,
      tankId: tank.id,
      specimenId: m.specimens[0]?.id ?? null,
      on: '2026-08-03',
      ticked: Object.fromEntries(steps.map((s) => [s.id, state(s.id)])),
      minutes: 48,
      note: 'Done on the phone, at the lobby’s opening.',
    }),
  ]
}

/** A rattle found by looking, and a weak flow found by the record alone. */
export function faultsOf(
  models: DemoBundle['models'],
  tanks: DemoBundle['tanks'],
): CreatedOf<'fault-searches'>[] {
  const model = (name: string): string | null => models.find((x) => x.model.name === name)?.model.id ?? null
  const tank = (name: string): string | null => tanks.find((x) => x.name === name)?.id ?? null
  const make = (id: string, more: object): CreatedOf<'fault-searches'> =>
    RESOURCES['fault-searches'].Create.parse({ id: idOf(`fault-${id}`), ...more })
  return [
    make('rattle', {
      symptom: 'rattle',
      modelId: model('Terrace 1200'),
      tankId: tank('Notary, reef'),
      on: '2026-02-11',
      outcomes: {
        'lid-loose': 'clear',
        'hose-touches': 'clear',
        'trapped-air': 'unsure',
        overfilled: 'cured',
      },
      seen: {
        'trapped-air': 'A few bubbles on the first side, then none; it rattled on.',
        overfilled: 'Floss a thumb above the rim of the top tray. Half of it out, quiet.',
      },
      ended: '2026-02-11',
    }),
    make('weak', {
      symptom: 'weak-flow',
      modelId: model('Plainbody 1000'),
      tankId: tank('Ferry café, counter'),
      on: '2026-11-26',
      outcomes: { clogged: 'found' },
      seen: {
        clogged:
          'Rung up by the café. Not opened since the ring was ordered: no need to look elsewhere first.',
      },
    }),
  ]
}

/** The change whose water was tested, as its plan is worked out. */
export const MOVED = {
  tank: 'Optician, corner',
  next: 'Ledger 700',
  began: '2026-11-12',
  share: 0.05,
} as const
/**
 * Day of the change, ammonia and nitrite read with a kit (mg/L as N): of a tank whose films grow at 0.5 of the pace;
 * `hands.test.ts` holds them against it.
 */
export const READ = [
  [1, 0.4, 0.1],
  [4, 0.6, 0.7],
  [7, 0.3, 0.3],
  [12, 0.15, 0.15],
] as const

/** Two changes half way: one beside the other, and ripe media moved over. */
export function changesOf(
  models: DemoBundle['models'],
  tanks: DemoBundle['tanks'],
): CreatedOf<'change-overs'>[] {
  const next = (name: string, id: string) => ({
    id,
    modelId: models.find((x) => x.model.name === name)?.model.id ?? null,
    fill: 'as-shipped' as const,
    label: '',
    kind: null,
    ratedFlow: null,
    since: null,
  })
  const tank = (name: string) => tanks.find((t) => t.name === name)
  const museum = tank('Museum, bowed front')
  const optician = tank(MOVED.tank)
  if (!museum || !optician) return []
  return [
    RESOURCES['change-overs'].Create.parse({
      id: idOf('change-museum'),
      tankId: museum.id,
      way: 'beside',
      weeks: 6,
      on: '2026-11-05',
      old: museum.filters?.[0] ?? null,
      next: next('Plainbody 1000', 'n1'),
      tests: [{ on: '2026-11-05', ammonia: 0, nitrite: 0 }],
      done: { on: '2026-11-05', leave: '2026-11-06' },
    }),
    RESOURCES['change-overs'].Create.parse({
      id: idOf('change-optician'),
      tankId: optician.id,
      way: 'moved',
      share: MOVED.share,
      on: MOVED.began,
      old: optician.filters?.[0] ?? null,
      next: next(MOVED.next, 'n1'),
      tests: READ.map(([day, ammonia, nitrite]) => ({
        on: dayAfter(MOVED.began, day),
        ammonia: ammonia * 1e-3,
        nitrite: nitrite * 1e-3,
      })),
      done: { move: MOVED.began, feed: MOVED.began, leave: dayAfter(MOVED.began, 1) },
      note: 'Sponge of the old one squeezed out over the new media.',
    }),
  ]
}

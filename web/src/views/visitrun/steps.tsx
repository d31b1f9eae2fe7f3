import { KitQuestion, useKit } from '../../tank/KitCounts'
import { kitCounts } from '../../settings/settings'
import type { Dossier, Medium, Visit } from '@ypsometer/contract'
import { CAUTIONS, stripCautions } from '@ypsometer/core/teardown/cautions'
import { CHECKLISTS } from '@ypsometer/core/parts/vocabulary'
import {
  CLARITIES,
  CLEANED_IN,
  DIRT,
  EVERYTHING,
  HOLDS,
  HOSE_INSIDES,
  SEEPS,
  type CleanedIn,
  type Dirt,
} from '@ypsometer/core/visits/record'
import { useState } from 'react'
import { changeRow } from '../../api/rows'
import { DateField, QuantityField, TextField } from '../../fields/fields'
import { Key, KeyGroup } from '../../fields/Keys'
import { Photos } from '../../photos/Photos'
import { TimedFlow } from './TimedFlow'

/** Props of a screen of a visit. */
interface ScreenProps {
  readonly dossier: Dossier
  readonly visit: Visit
  readonly media: readonly Medium[]
}

/** One thing that is looked at, in the order of a visit. */
interface Step {
  readonly id: string
  readonly title: string
  readonly why: string
  readonly done: (v: Visit) => boolean
  readonly Screen: (p: ScreenProps) => React.ReactNode
}

const SEEP_WORDS = { taps: 'taps', head: 'head', hoses: 'hose joints', lid: 'lid', body: 'body' } as const
const HOLD_WORDS = { all: 'all hold', some: 'some let go', none: 'none hold' } as const
const HOSE_WORDS = { clean: 'clean', slime: 'a coat of slime', 'half-closed': 'half closed' } as const
const CLEANED_WORDS: Readonly<Record<CleanedIn, string>> = {
  'tank-water': 'tank water',
  dechlorinated: 'dechlorinated',
  tap: 'tap',
  wiped: 'wiped',
  renewed: 'renewed',
}
const write = (v: Visit, body: Parameters<typeof changeRow<'visits'>>[2]): void =>
  changeRow('visits', v, body)

interface LayerName {
  readonly id: string
  readonly name: string
}
/** The layers of the fill it runs with, in the order of the water. */
function layersOf({ dossier, visit, media }: ScreenProps): readonly LayerName[] {
  const fill = dossier.fills.find((f) => f.id === visit.fillId) ?? dossier.fills[0]
  return (fill?.layers ?? []).map((l) => ({
    id: l.id,
    name: media.find((m) => m.id === l.mediumId)?.name ?? 'A layer',
  }))
}

function Seeping({ visit }: ScreenProps) {
  const now = visit.seeping
  return (
    <KeyGroup name="Leak">
      <Key on={now?.length === 0} onTap={() => write(visit, { seeping: now?.length === 0 ? null : [] })}>
        nowhere
      </Key>
      {SEEPS.map((s) => {
        const on = now?.includes(s) ?? false
        const next = on ? (now ?? []).filter((x) => x !== s) : [...(now ?? []), s]
        return (
          <Key key={s} on={on} onTap={() => write(visit, { seeping: next })}>
            {SEEP_WORDS[s]}
          </Key>
        )
      })}
    </KeyGroup>
  )
}

function NoiseAndWatts({ visit }: ScreenProps) {
  const common = { collection: 'visits', row: visit } as const
  return (
    <div className="grid grid-cols-2 gap-4">
      <QuantityField {...common} field="noise" label="Noise at the seat" />
      <QuantityField {...common} field="watts" label="Power" />
    </div>
  )
}

function Opening({ dossier }: ScreenProps) {
  const mass = dossier.bodies.at(-1)?.fullMass ?? null
  return (
    <ul className="space-y-3 text-[1.1rem]">
      {stripCautions(dossier.model.kind, dossier.parts, mass).map((c) => (
        <li key={c.id} className="border-warning border-l-4 pl-3">
          {c.text}
        </li>
      ))}
      <li className="border-warning border-l-4 pl-3">{CAUTIONS.stale}</li>
      <li className="muted text-[0.95rem]">Local codes and a licensed electrician come first.</li>
    </ul>
  )
}

const DIRT_KEYS: Readonly<Record<Dirt, string>> = {
  clean: 'clean',
  light: 'light',
  half: 'half',
  blind: 'blind',
}

function DirtInLayers(p: ScreenProps) {
  const { visit } = p
  const layers = layersOf(p)
  if (!layers.length) return <p>No media setup recorded, so there are no layers to check.</p>
  return (
    <div className="space-y-4">
      {layers.map((l, i) => (
        <KeyGroup key={l.id} name={`${i + 1}. ${l.name}`}>
          {DIRT.map((d) => (
            <Key
              key={d}
              on={visit.dirt[l.id] === d}
              onTap={() => {
                const { [l.id]: was, ...rest } = visit.dirt
                write(visit, { dirt: was === d ? rest : { ...rest, [l.id]: d } })
              }}
            >
              {DIRT_KEYS[d]}
            </Key>
          ))}
        </KeyGroup>
      ))}
      <Photos owner={{ visitId: visit.id }} />
    </div>
  )
}

/** Checks that show how a filter ages. */
const AGES = ['impeller', 'shaft', 'o-ring', 'clip', 'hose-joint', 'quartz', 'feet']

function Parts({ dossier, visit }: ScreenProps) {
  const parts = dossier.parts.filter((p) => AGES.includes(p.checklist))
  if (!parts.length) return <p>No parts recorded. Do a teardown first.</p>
  return (
    <div className="space-y-4">
      {parts.map((p) => {
        const now = visit.parts[p.id] ?? []
        return (
          <KeyGroup key={p.id} name={p.name}>
            {(CHECKLISTS.find((c) => c.id === p.checklist)?.findings ?? []).map((f) => (
              <Key
                key={f.id}
                on={now.includes(f.id)}
                onTap={() => {
                  const { [p.id]: _, ...rest } = visit.parts
                  const next = now.includes(f.id) ? now.filter((x) => x !== f.id) : [...now, f.id]
                  write(visit, { parts: next.length ? { ...rest, [p.id]: next } : rest })
                }}
              >
                {f.label}
              </Key>
            ))}
          </KeyGroup>
        )
      })}
    </div>
  )
}

function Water({ visit }: ScreenProps) {
  const counts = kitCounts.use()
  const kit = useKit()
  const common = { collection: 'visits', row: visit } as const
  return (
    <div className="space-y-4">
      <KitQuestion large />
      {counts !== '' && (
        <div className="grid grid-cols-3 gap-3">
          {(['ammonia', 'nitrite', 'nitrate'] as const).map((q) => (
            <QuantityField key={`${q}-${counts}`} {...common} field={q} {...kit(q)} />
          ))}
        </div>
      )}
      <Key on={visit.binder} onTap={() => write(visit, { binder: !visit.binder })}>
        an ammonia-binding conditioner was used
      </Key>
      <KeyGroup name="The water looks">
        {CLARITIES.map((c) => (
          <Key
            key={c}
            on={visit.clarity === c}
            onTap={() => write(visit, { clarity: visit.clarity === c ? null : c })}
          >
            {c}
          </Key>
        ))}
      </KeyGroup>
    </div>
  )
}

function CleanedUp(p: ScreenProps) {
  const { visit } = p
  const things = [
    { id: EVERYTHING, name: 'Everything' },
    ...layersOf(p),
    { id: 'impeller', name: 'Clean impeller and housing' },
    { id: 'hoses', name: 'Hoses' },
  ]
  const howOf = (id: string): CleanedIn | undefined => visit.cleaned.find((c) => c.what === id)?.how
  return (
    <div className="space-y-4">
      {things.map((t) => (
        <KeyGroup key={t.id} name={t.name}>
          {CLEANED_IN.map((how) => (
            <Key
              key={how}
              on={howOf(t.id) === how}
              onTap={() => {
                const rest = visit.cleaned.filter((c) => c.what !== t.id)
                write(visit, { cleaned: howOf(t.id) === how ? rest : [...rest, { what: t.id, how }] })
              }}
            >
              {CLEANED_WORDS[how]}
            </Key>
          ))}
        </KeyGroup>
      ))}
      <div className="w-40">
        <QuantityField collection="visits" row={visit} field="minutes" label="Minutes it took" />
      </div>
    </div>
  )
}

function Failures({ visit }: ScreenProps) {
  const [part, setPart] = useState('')
  const [how, setHow] = useState('')
  const add = (): void => {
    if (!part.trim()) return
    write(visit, { failed: [...visit.failed, { part: part.trim(), how: how.trim() }] })
    setPart('')
    setHow('')
  }
  return (
    <div className="space-y-3">
      <ul>
        {visit.failed.map((f, i) => (
          <li key={i} className="rule-b flex items-center justify-between gap-3 py-1.5">
            <span>
              <span className="font-medium">{f.part}</span>
              {f.how && `: ${f.how}`}
            </span>
            <button
              type="button"
              className="btn h-12"
              onClick={() => write(visit, { failed: visit.failed.filter((_, j) => j !== i) })}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
      <label className="block">
        <span className="kicker">Part</span>
        <input
          className="field !min-h-12"
          value={part}
          maxLength={60}
          onChange={(e) => setPart(e.target.value)}
        />
      </label>
      <label className="block">
        <span className="kicker">How it failed</span>
        <input
          className="field !min-h-12"
          value={how}
          maxLength={200}
          onChange={(e) => setHow(e.target.value)}
        />
      </label>
      <button type="button" className="btn h-12" disabled={!part.trim()} onClick={add}>
        Note the failure
      </button>
    </div>
  )
}

export const STEPS: readonly Step[] = [
  {
    id: 'day',
    title: 'Leave it uncleaned until you have looked',
    why: 'First record what you find. (Skip on a first set-up.)',
    done: () => true,
    Screen: ({ visit }) => (
      <div className="max-w-60">
        <DateField collection="visits" row={visit} field="on" label="Date of the check-up" />
      </div>
    ),
  },
  {
    id: 'seeping',
    title: 'Does it seep?',
    why: 'A dry finger along taps, head and hose joints.',
    done: (v) => v.seeping !== null,
    Screen: Seeping,
  },
  {
    id: 'flow',
    title: 'Flow as it is',
    why: 'The same vessel at the same place as last time. Three runs show their scatter.',
    done: (v) => v.runsBefore.length > 0,
    Screen: ({ visit }) => <TimedFlow visit={visit} when="before" />,
  },
  {
    id: 'noise',
    title: 'Noise and watts',
    why: 'From where one sits; a plug-in meter for the watts.',
    done: (v) => v.noise !== null || v.watts !== null,
    Screen: NoiseAndWatts,
  },
  {
    id: 'holding',
    title: 'Feet, cups and clips',
    why: 'Do they still hold?',
    done: (v) => v.holding !== null,
    Screen: ({ visit }) => (
      <KeyGroup name="They hold">
        {HOLDS.map((h) => (
          <Key
            key={h}
            on={visit.holding === h}
            onTap={() => write(visit, { holding: visit.holding === h ? null : h })}
          >
            {HOLD_WORDS[h]}
          </Key>
        ))}
      </KeyGroup>
    ),
  },
  {
    id: 'open',
    title: 'Open it: the plug first',
    why: 'Before hands go in.',
    done: () => true,
    Screen: Opening,
  },
  {
    id: 'dirt',
    title: 'Where is the dirt?',
    why: 'Layer by layer, in flow order. Add photos.',
    done: (v) => Object.keys(v.dirt).length > 0,
    Screen: DirtInLayers,
  },
  {
    id: 'parts',
    title: 'Impeller, seals, locks',
    why: 'What ages first.',
    done: (v) => Object.keys(v.parts).length > 0,
    Screen: Parts,
  },
  {
    id: 'hoses',
    title: 'Inside the hoses',
    why: 'Hold it against the light.',
    done: (v) => v.hoses !== null,
    Screen: ({ visit }) => (
      <KeyGroup name="They are">
        {HOSE_INSIDES.map((h) => (
          <Key
            key={h}
            on={visit.hoses === h}
            onTap={() => write(visit, { hoses: visit.hoses === h ? null : h })}
          >
            {HOSE_WORDS[h]}
          </Key>
        ))}
      </KeyGroup>
    ),
  },
  {
    id: 'water',
    title: 'Test the water',
    why: 'A working filter shows ammonia 0, nitrite 0, nitrate low.',
    done: (v) => v.ammonia !== null || v.nitrite !== null || v.nitrate !== null || v.clarity !== null,
    Screen: Water,
  },
  {
    id: 'cleaned',
    title: 'What was cleaned, and how',
    why: 'Clean at most half the bio media per day, in tank or dechlorinated water.',
    done: (v) => v.cleaned.length > 0,
    Screen: CleanedUp,
  },
  {
    id: 'failed',
    title: 'Did anything fail?',
    why: 'A part that no longer does its work, with how it failed.',
    done: (v) => v.failed.length > 0,
    Screen: Failures,
  },
  {
    id: 'after',
    title: 'Refit, prime, flow after',
    why: 'Every part seated, latches in opposite pairs, no air left; then the same vessel again.',
    done: (v) => v.runsAfter.length > 0,
    Screen: ({ visit }) => <TimedFlow visit={visit} when="after" />,
  },
  {
    id: 'note',
    title: 'Anything else?',
    why: 'In your own words.',
    done: () => true,
    Screen: ({ visit }) => <TextField collection="visits" row={visit} field="note" label="Note" lines={5} />,
  },
]

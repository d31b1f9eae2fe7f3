import { AIR_PUMP_POWER } from '@ypsometer/core/advice/service'
import type { Candidate as CoreCandidate, OfferedFill, Price, Spare } from '@ypsometer/core/advice/candidate'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import { pumpBand } from '@ypsometer/core/hydraulics/bands'
import { layerCounts, shoppingList } from '@ypsometer/core/fills/weigh'
import { placeFill } from '@ypsometer/core/fills/place'
import { CoreError } from '@ypsometer/core/errors/errors'
import { claimed, labelFigure } from '@ypsometer/core/trials/labels'
import { printedFigure } from '@ypsometer/core/trials/printed'
import { waysBack } from '@ypsometer/core/judging/strength'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import type { ModelRecord } from '@ypsometer/core/trials/records'
import { FILTERS } from '@ypsometer/core/kinds/filters'
import { packVolume } from '@ypsometer/core/media/medium'
import { faultsOf } from '@ypsometer/core/parts/vocabulary'
import { reaches } from '@ypsometer/core/teardown/reach'
import { reachFigures, serviceFigure } from '@ypsometer/core/teardown/figures'
import { wholeReadings } from '@ypsometer/core/trials/readings'
import { volumeAudit } from '@ypsometer/core/volumes/interior'
import { weightFigure } from '@ypsometer/core/volumes/figures'
import type { Medium } from './fills'
import type { Dossier } from './dossier'
import { fittingModel, interiorOf, mainHookup, modelRecord } from './records'

/** Full weight and water of a body, as its fit asks for them; null while no body is on record. */
export function fittingOf(d: Dossier): CoreCandidate['fitting'] {
  const interior = interiorOf(d)
  if (!interior) return null
  const gross = volumeAudit(interior.chambers, interior.body).water
  const { waterFill } = interior.body
  const water: Figure = {
    id: 'body-water',
    label: 'Water in the body',
    value: waterFill ?? gross,
    dimension: 'volume',
    provenance: waterFill === null ? 'computed' : 'measured',
  }
  const fitting = fittingModel(d, weightFigure(interior.body, gross), water)
  return fitting && { ...fitting, parts: fitting.parts.map(({ name, material }) => ({ name, material })) }
}

/** Ways its water can come back, by its first hookup. */
export const outletsOf = (d: Dossier, fill: Pick<JudgedFill, 'outlet'> | null): CoreCandidate['outlets'] =>
  waysBack(mainHookup(d)?.fitted.outlets, fill?.outlet ?? null)

function offered(d: Dossier, media: readonly Medium[], judged: JudgedFill | null): OfferedFill | null {
  if (!judged) return null
  const row = d.fills.find((f) => f.id === judged.fill.id)
  const interior = interiorOf(d)
  const none = { ...judged, order: [], uses: [] }
  if (!row || !interior) return none
  try {
    const { chambers } = placeFill(d.model.kind, interior.chambers, row, media)
    return {
      ...judged,
      order: chambers.flatMap((c) => c.layers.map((l) => l.medium.name)),
      uses: shoppingList(chambers).map(({ medium: m, volume }) => ({
        name: m.name,
        form: m.form,
        job: m.job,
        counts: layerCounts(d.model.kind, m),
        volume,
        pack: packVolume(m),
        price: priceAs(m.priceMinor, m.currency, m.pricedOn),
        lifeDays: m.lifeDays,
      })),
    }
  } catch (error) {
    if (error instanceof CoreError) return none
    throw error
  }
}

const priceAs = (minor: number | null, currency: string | null, on: string | null): Price | null =>
  minor !== null && currency ? { minor, currency, on } : null

/** A fill is media, not a spare. */
const MEDIA_MATERIALS: readonly string[] = ['foam', 'fibre', 'sintered']

/** Parts that have a price, and the lamp of its hoses. */
function sparesOf(d: Dossier): readonly Spare[] {
  const lamp = mainHookup(d)?.fitted.lamp?.price
  const parts = d.parts.flatMap((p): Spare[] => {
    const price = priceAs(p.sparePriceMinor, p.spareCurrency, p.sparePricedOn)
    if (!price || MEDIA_MATERIALS.includes(p.material)) return []
    const wears = p.reach === 'impeller' ? 'impeller' : p.material === 'rubber' ? 'seal' : 'other'
    return [{ name: p.name, wears, price }]
  })
  return [...parts, ...(lamp ? [{ name: 'UV-C lamp', wears: 'lamp', price: lamp } as const] : [])]
}

/** Parts looked at, and what is wrong with them by their checklists; null while nobody has stripped it. */
function buildOf(d: Dossier): CoreCandidate['build'] {
  const looked = d.parts.filter((p) => p.findings.length)
  if (!looked.length) return null
  return {
    parts: looked.length,
    faults: looked.flatMap((p) => faultsOf(p).map((f) => `${p.name}: ${f}`)),
  }
}

function priceOf(d: Dossier): Price | null {
  const row = d.claims.findLast((c) => c.quantity === 'price')
  return row ? priceAs(row.amountMinor, row.currency, row.pricedOn) : null
}

/** Litres of the media of a fill that count towards capacity. */
function mediaFigure(fill: OfferedFill | null, label: string): Figure | null {
  if (!fill?.uses.length) return null
  const counts = fill.uses.filter((u) => u.counts)
  return {
    id: `media-volume-${fill.fill.id}`,
    label,
    value: counts.reduce((sum, u) => sum + u.volume, 0),
    dimension: 'volume',
    provenance: 'computed',
    conditions: [fill.fill.name],
    formula: 'Σ of its layers',
    working: counts.map((u, i) => put(`V_${i + 1}`, u.name.toLowerCase(), u.volume, 'volume', 'computed')),
  }
}

function factsOf(
  d: Dossier,
  record: ModelRecord,
  a: Assessment,
  { shipped, proposed }: Pick<CoreCandidate, 'shipped' | 'proposed'>,
): CoreCandidate['facts'] {
  const printed = (q: Parameters<typeof claimed>[1]): Figure | null => {
    const claim = claimed(record, q, d.model.mainsFrequency)
    return claim ? printedFigure(claim) : null
  }
  const reached = reaches(d.parts)
  const to = (what: 'pre-filter' | 'media'): CoreCandidate['facts']['toMedia'] => {
    const r = reached.find((x) => x.reach === what)
    if (!r) return null
    const { moves, seconds } = reachFigures(r)
    return { moves, seconds }
  }
  const { pump } = a
  return {
    printed: {
      ratedFlow: printed('rated-flow'),
      maxHead: printed('max-head'),
      mediaVolume: printed('media-volume'),
      tankMin: printed('tank-min'),
      tankMax: printed('tank-max'),
    },
    bare: a.againstLabel?.measured ?? null,
    shutOff:
      pump?.from === 'fit'
        ? {
            id: 'shut-off-found',
            label: 'Head at which it stops, by its curve',
            value: pump.pump.shutOffHead,
            ...(pump.fit && { uncertainty: pumpBand(0, pump.fit) }),
            dimension: 'head',
            provenance: 'computed',
            conditions: ['fitted to flows measured at several heights'],
          }
        : null,
    pump: pump && { ...pump.pump, from: pump.from },
    media: {
      shipped: mediaFigure(shipped, 'Supplied bio media'),
      proposed: mediaFigure(proposed, 'Recommended bio media'),
    },
    preFilter: to('pre-filter'),
    toMedia: to('media'),
    omits: d.contents.length ? d.contents.filter((c) => c.found === 'missing').map((c) => c.name) : null,
    guarantee: d.claims.findLast((c) => c.quantity === 'guarantee')?.words ?? null,
    holding: d.trials
      .filter((t) => t.kind === 'holding')
      .flatMap((t) =>
        wholeReadings(
          'holding',
          d.readings.filter((r) => r.trialId === t.id),
        ),
      )
      .map((r) => ({ seconds: r.seconds, censored: r.outcome === 'still' })),
  }
}

/** Everything that is asked of a model where it is set against a tank or another model. */
export function candidateOf(d: Dossier, media: readonly Medium[], a: Assessment): CoreCandidate {
  const { shipped, proposed, level, claimedRange } = a.verdict
  const found = a.findings.flatMap((f) => f.figures)
  const watts = found.findLast((f) => f.id.startsWith('power-'))
  const record = modelRecord(d)
  const label = claimed(record, 'power', d.model.mainsFrequency)
  const { inlet } = mainHookup(d)?.fitted ?? {}
  // One of which nobody has said what is in it cannot be bought.
  const refill = d.fills.some((f) => f.id === proposed?.fill.fill.id) ? (proposed?.fill ?? null) : null
  const fills = { shipped: offered(d, media, shipped), proposed: offered(d, media, refill) }
  return {
    id: d.model.id,
    maker: d.model.maker,
    name: d.model.name,
    kind: d.model.kind,
    ...fills,
    fitting: fittingOf(d),
    outlets: outletsOf(d, shipped),
    inlet: (FILTERS[d.model.kind].intake && inlet) || null,
    level,
    claimedMax: claimedRange.max,
    price: priceOf(d),
    watts:
      watts ??
      (label && labelFigure(label, d.model.mainsFrequency)) ??
      (FILTERS[d.model.kind].drivenBy === 'air' ? AIR_PUMP_POWER : null),
    noise: found.findLast((f) => f.id.startsWith('noise-')) ?? null,
    service: serviceFigure(d.parts),
    build: buildOf(d),
    spares: sparesOf(d),
    offers: d.model.offers.map(({ kind, minor, currency, on }) => ({
      kind,
      price: { minor, currency, on },
      on,
    })),
    kin: d.model.kinId ? { id: d.model.kinId, as: d.model.kinship } : null,
    facts: factsOf(d, record, a, fills),
  }
}

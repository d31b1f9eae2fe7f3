import type { Candidate as CoreCandidate, OfferedFill, Price, Spare } from '@ypsometer/core/advice'
import { putFigure, type Figure } from '@ypsometer/core/figures'
import { placeFill, shoppingList } from '@ypsometer/core/fills'
import { CoreError } from '@ypsometer/core/errors'
import { claimed, labelFigure, waysBack, type Assessment, type JudgedFill } from '@ypsometer/core/judging'
import { FILTERS } from '@ypsometer/core/kinds'
import { packVolume } from '@ypsometer/core/media'
import { CHECKLISTS, reaches, reachFigures } from '@ypsometer/core/teardown'
import { volumeAudit, weightFigure } from '@ypsometer/core/volumes'
import { z } from 'zod'
import type { Medium } from './fills'
import type { Dossier } from './models'
import { fittingModel, interiorOf, modelRecord } from './records'

/** A page of candidates; each as `Candidate` of `core/advice`, or the reason why it cannot be worked out. */
export const CandidatePage = z.object({
  items: z.array(
    z.object({ id: z.string(), candidate: z.looseObject({}).nullable(), problem: z.string().nullable() }),
  ),
  next: z.string().nullable(),
}) as unknown as z.ZodType<CandidateList>
export const CandidateQuery = z.object({
  after: z.uuid().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(200),
})

export interface CandidateList {
  readonly items: readonly {
    readonly id: string
    readonly candidate: CoreCandidate | null
    readonly problem: string | null
  }[]
  readonly next: string | null
}

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
  waysBack(d.hookups[0]?.fitted.outlets, fill?.outlet ?? null)

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
        volume,
        pack: packVolume(m),
        price: m.priceMinor !== null && m.currency ? { minor: m.priceMinor, currency: m.currency } : null,
        lifeDays: m.lifeDays,
      })),
    }
  } catch (error) {
    if (error instanceof CoreError) return none
    throw error
  }
}

/** What fills a filter is media, not a spare. */
const MEDIA_MATERIALS: readonly string[] = ['foam', 'fibre', 'sintered']

function sparesOf(d: Dossier): readonly Spare[] {
  return d.parts.flatMap((p) =>
    p.sparePriceMinor !== null && p.spareCurrency && !MEDIA_MATERIALS.includes(p.material)
      ? [
          {
            name: p.name,
            wears: p.reach === 'impeller' ? 'impeller' : p.material === 'rubber' ? 'seal' : 'other',
            price: { minor: p.sparePriceMinor, currency: p.spareCurrency },
          },
        ]
      : [],
  )
}

/** Parts looked at, and what is wrong with them by their checklists; null while nobody has stripped it. */
function buildOf(d: Dossier): CoreCandidate['build'] {
  const looked = d.parts.filter((p) => p.findings.length)
  if (!looked.length) return null
  const ill = CHECKLISTS.flatMap((l) => l.findings.filter((f) => !f.good).map((f) => `${l.id} ${f.id}`))
  return {
    parts: looked.length,
    faults: looked.flatMap((p) =>
      p.findings
        .filter((f) => ill.includes(`${p.checklist} ${f}`))
        .map(
          (f) =>
            `${p.name}: ${CHECKLISTS.find((l) => l.id === p.checklist)?.findings.find((x) => x.id === f)?.label ?? f}`,
        ),
    ),
  }
}

function priceOf(d: Dossier): Price | null {
  const row = d.claims.findLast((c) => c.quantity === 'price')
  return row?.amountMinor != null && row.currency ? { minor: row.amountMinor, currency: row.currency } : null
}

/** From the closed filter to its media, cleaned and back together; null where the way was not timed. */
function serviceOf(d: Dossier): Figure | null {
  const media = reaches(d.parts).find((r) => r.reach === 'media')
  if (!media) return null
  const { seconds, back, cleaning } = reachFigures(media)
  const steps = [seconds, cleaning, back].filter((f) => f !== null)
  return {
    id: 'service',
    label: 'Opened to its media, cleaned and closed',
    value: steps.reduce((sum, f) => sum + f.value, 0),
    dimension: 'time',
    provenance: 'computed',
    ...(steps.length < 3 && { conditions: ['not every step was timed: it takes longer than this'] }),
    formula: 'open + clean + back',
    working: steps.map((f, i) => putFigure(`t_${i + 1}`, f)),
  }
}

/** Everything that is asked of a model where it is set against a tank or another model. */
export function candidateOf(d: Dossier, media: readonly Medium[], a: Assessment): CoreCandidate {
  const { shipped, proposed, level, claimedRange } = a.verdict
  const found = a.findings.flatMap((f) => f.figures)
  const watts = found.findLast((f) => f.id.startsWith('power-'))
  const label = claimed(modelRecord(d), 'power', d.model.mainsFrequency)
  const { inlet } = d.hookups[0]?.fitted ?? {}
  return {
    id: d.model.id,
    maker: d.model.maker,
    name: d.model.name,
    kind: d.model.kind,
    shipped: offered(d, media, shipped),
    // One of which nobody has said what is in it cannot be bought.
    proposed: d.fills.some((f) => f.id === proposed?.fill.fill.id)
      ? offered(d, media, proposed?.fill ?? null)
      : null,
    fitting: fittingOf(d),
    outlets: outletsOf(d, shipped),
    inlet: (FILTERS[d.model.kind].intake && inlet) || null,
    level,
    claimedMax: claimedRange.max,
    price: priceOf(d),
    watts: watts ?? (label ? labelFigure(label, d.model.mainsFrequency) : null),
    noise: found.findLast((f) => f.id.startsWith('noise-')) ?? null,
    service: serviceOf(d),
    build: buildOf(d),
    spares: sparesOf(d),
  }
}

import type { Dossier, EditedWords } from '@ypsometer/contract'
import { snapshotOf, type Snapshot } from '@ypsometer/contract/review'
import { demoBundle, idOf } from '@ypsometer/demo'
import type { Db } from '../db/client'
import { review, reviewEdition } from '../db/schema'
import { asProgram } from '../db/signing'
import { reviewQuestion } from '../reviews/snapshot'

interface Told {
  readonly on: string
  /** The record as it was on that day, where today’s knows more. */
  readonly was?: (d: Dossier) => Dossier
  readonly erratum?: { readonly what: string; readonly why: string }
}
interface DemoReview {
  readonly model: string
  readonly words: EditedWords
  readonly editions: readonly Told[]
}

/** Only the first runs of each timing were in. */
const firstRuns =
  (n: number) =>
  (d: Dossier): Dossier => ({
    ...d,
    readings: d.trials.flatMap((t) => d.readings.filter((r) => r.trialId === t.id).slice(0, n)),
  })
/** It had not been timed on its hoses yet. */
const notInstalled = (d: Dossier): Dossier => ({
  ...d,
  trials: d.trials.filter((t) => t.hookupId === null || t.state === 'empty'),
})

/** One published, one corrected, one whose numbers have moved since. */
const REVIEWS: readonly DemoReview[] = [
  {
    model: 'Ledger 700',
    words: {
      title: 'A label that can be read',
      intro: 'We bought it over the counter, and it has run in the dentist’s window for a year.',
      words: {
        path: 'Turn nothing round in this one: it comes in the right order.',
        visits: 'Opened four times in a year, and we would not have had to.',
      },
      buy: 'yes',
      buyWhy: 'It does what is printed on it, within what a bucket can tell.',
    },
    editions: [{ on: '2026-11-02' }],
  },
  {
    model: 'Torrent 1400',
    words: {
      title: 'Five hundred litres on the box',
      intro: '',
      words: { strip: 'Four parts go in two ways, and three of them are trays.' },
      buy: 'if',
      buyWhy: 'With the fine pad moved below the media and half of the foam out of it.',
    },
    editions: [
      { on: '2026-09-20', was: notInstalled },
      {
        on: '2026-10-05',
        erratum: {
          what: 'The flow on its hoses was computed and a quarter too high.',
          why: 'It had been timed bare only; it has been timed as it stands since.',
        },
      },
    ],
  },
  {
    model: 'Plainbody 1000',
    words: {
      title: 'Cheap, and worth refilling',
      intro: 'What is in it is not what it is good for.',
      words: {},
      buy: 'if',
      buyWhy: 'With better media in it, from the first day.',
    },
    editions: [{ on: '2026-06-10', was: firstRuns(3) }],
  },
]

/** Writes the demo’s reviews with numbers as the bench had them on their days. */
export async function loadReviews(db: Db): Promise<void> {
  for (const r of REVIEWS) {
    const modelId = demoBundle.models.find((m) => m.model.name === r.model)?.model.id
    const last = r.editions.at(-1)
    if (!modelId || !last) continue
    const id = idOf(`review-${r.model}`)
    const taken: Snapshot[] = []
    for (const e of r.editions) {
      const question = await reviewQuestion(db, modelId, e.on)
      taken.push(snapshotOf({ ...question, dossier: e.was?.(question.dossier) ?? question.dossier }))
    }
    const draft = taken.at(-1)
    if (!draft) continue
    await asProgram(db, (tx) =>
      tx.insert(review).values({
        id,
        modelId,
        ...r.words,
        state: r.editions.length > 1 ? 'corrected' : 'published',
        editions: r.editions.length,
        publishedOn: last.on,
        takenOn: last.on,
        draft,
      }),
    )
    await db.insert(reviewEdition).values(
      r.editions.flatMap((e, i) => {
        const snapshot = taken[i]
        return snapshot
          ? [
              {
                reviewId: id,
                number: i + 1,
                publishedOn: e.on,
                erratum: e.erratum ?? null,
                words: r.words,
                snapshot,
              },
            ]
          : []
      }),
    )
  }
}

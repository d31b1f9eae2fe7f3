import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { dice } from '@ypsometer/core/statistics/monteCarlo'
import type { Dossier, Tank } from '@ypsometer/contract'
import { demoBundle } from '.'
import { asPage, demoSentences, sentencesOf } from './sentences'

/** What every sentence of the app is held to; a page of them is in docs/sentences.md. */
const MOST_WORDS = 22
/** Words that the glossary retired; a name of the demo may have them. */
const RETIRED =
  /\b(binds?|carries|carried by|fouls?|fouled|blinds?|blinded|ripe|ripens?|ripening|nought|strains?|strained|straining|kin|held against|stands? apart|on record|nobody has|hookups?|schools?|change-?over|upkeep|goes round|go round|what binds|shut-off|reckon|what it comes to)\b/iu
const KEYS =
  /\b(turtle-(?:current|still|hatchling)|taps-shut|modelId|as-shipped|polish-last|strain-first|media-mass)\b/u
const NONSENSE =
  /(?<![\d.,\u202f])0 (?:h|min|s|days)\b|undefined|NaN|Infinity|null|(?<![\d.,\u202f])1 (?:packs|steps|days|weeks|runs)\b|not 0\.0 %|(?:over|along) 0\.0 /u

/** A sentence ends with its point; abbreviations and decimals do not end one. */
const apart = (text: string): string[] => text.split(/(?<=[.!?])\s+(?=[A-ZÀ-Ž“\d])/u)
const wordsOf = (s: string): number => s.split(/\s+/u).filter((w) => /[\p{L}]/u.test(w)).length

function faults(text: string): string[] {
  const out: string[] = []
  for (const s of apart(text)) if (wordsOf(s) > MOST_WORDS) out.push(`${wordsOf(s)} words: ${s}`)
  const doubled = /\b(\p{L}+) \1\b/iu.exec(text)
  if (doubled) out.push(`“${doubled[0]}”: ${text}`)
  if (RETIRED.test(text)) out.push(`“${RETIRED.exec(text)?.[0]}”: ${text}`)
  if (KEYS.test(text) || NONSENSE.test(text)) out.push(`key or nonsense: ${text}`)
  if (/\s{2}|\s[,.;:](?!\d)|\(\s|\s\)/u.test(text.replace(/ /gu, ' '))) out.push(`an empty place: ${text}`)
  if (text.trim() === '') out.push('an empty sentence')
  return out
}

const all = demoSentences()

test('the page of sentences is what the demo makes now: npm run sentences', () => {
  const kept = readFileSync(join(__dirname, '..', 'docs', 'sentences.md'), 'utf8')
  expect(asPage(all) === kept).toBe(true)
})

test.each(Object.entries(all))('%s: short, whole, without keys, nonsense or retired words', (_, list) => {
  expect(list.length).toBeGreaterThan(0)
  expect(list.flatMap(faults)).toEqual([])
})

/** Dossiers made at random: a share of them in every test run, all 200 with SENTENCES=200. */
const RANDOM = Number(process.env.SENTENCES ?? 40)

test(`so are those of ${RANDOM} dossiers made at random from the demo: labels, runs, parts and setups taken away or scaled`, () => {
  const d = dice(3607)
  const some = <T>(list: readonly T[], keep: number): T[] => list.filter(() => d.uniform() < keep)
  const models = Array.from({ length: RANDOM }, (_, i) => {
    const m = demoBundle.models[i % demoBundle.models.length] as (typeof demoBundle.models)[number]
    const keep = [1, 0.7, 0.4, 0][i % 4] ?? 1
    const by = Math.exp(d.normal())
    const trials = some(m.trials, keep)
    return {
      logs: [],
      photos: [],
      ...m,
      claims: some(m.claims, 0.3 + 0.7 * keep).map((c) => ({ ...c, value: (c.value ?? 1) * by })),
      trials,
      readings: m.readings.filter((r) => trials.some((t) => t.id === r.trialId)),
      fills: some(m.fills, keep || 0.5),
      parts: some(m.parts, keep),
      hookups: some(m.hookups, keep || 0.5),
      specimens: some(m.specimens, keep),
    } as unknown as Dossier
  })
  const tanks = (demoBundle.tanks as unknown as Tank[]).slice(0, 4)
  const made = Object.values(sentencesOf(models, tanks)).flat()
  expect(made.length).toBeGreaterThan(300)
  expect([...new Set(made.flatMap(faults))]).toEqual([])
})

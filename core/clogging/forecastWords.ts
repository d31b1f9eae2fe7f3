import { type Figure, type Sentence, agrees, inline, the, lowerFirst, upperFirst } from '../figures'
import type { School } from '../path'
import {
  type SchoolSeason,
  inDays,
  toMediaFigure,
  whyDue,
  unstrainedFigure,
  type DueFigures,
  type ForecastReport,
  share,
} from './report'
import type { ClogDay } from './run'
import type { ClogAnswers } from './study'

const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  'strain-first': 'mechanical first',
  'polish-last': 'fine pad last',
  'prefilter-low': 'external pre-filter',
}

const sayDue = (s: SchoolSeason): Sentence => {
  const { due } = s.run.answers
  if (!due) return ['no cleaning within a year']
  return ['clean after ', inline(inDays(`due-${s.school}-${s.prefilter}`, 'Clean after', due.day, { conditions: [whyDue(s.run.answers) ?? ''] }), 2)] // prettier-ignore
}

/** By what the schools differ on this filter, and what a pre-filter is worth: one sentence each. */
export function seasonSentences(all: readonly SchoolSeason[]): readonly Sentence[] {
  const find = (school: School, prefilter: boolean): SchoolSeason | undefined =>
    all.find((s) => s.school === school && s.prefilter === prefilter)
  const plain = (['strain-first', 'polish-last', 'prefilter-low'] as const).flatMap(
    (s) => find(s, false) ?? find(s, true) ?? [],
  )
  const orders = plain.map((s): Sentence => [
    `${upperFirst(SCHOOL_WORDS[s.school])}: `,
    ...sayDue(s),
    '; ',
    inline({ ...toMediaFigure(s.run), id: `to-media-${s.school}` }),
    ' of the dirt reaches the bio media.',
  ])
  const [bare, pre] = [find('strain-first', false), find('strain-first', true)]
  const worth: Sentence[] =
    bare && pre
      ? [
          [
            'With a pre-filter rinsed weekly: ',
            ...sayDue(pre),
            ...(pre.minutes
              ? [', ', inline({ ...pre.minutes, id: 'minutes-with' }, 2), ' min of work a year']
              : []),
            '. Without: ',
            ...sayDue(bare),
            ...(bare.minutes ? [', ', inline({ ...bare.minutes, id: 'minutes-without' }, 2), ' min'] : []),
            '.',
          ],
        ]
      : []
  return [...orders, ...turnedRound(bare, find('polish-last', false)), ...worth]
}

/** Where media get more dirt behind the pad than ahead of it: what in this body turns it round. */
function turnedRound(first?: SchoolSeason, last?: SchoolSeason): readonly Sentence[] {
  if (!first || !last || first.run.answers.toMedia <= last.run.answers.toMedia) return []
  const round = ({ school, run }: SchoolSeason): Figure => ({
    ...unstrainedFigure(run.days.at(-1) as ClogDay),
    id: `round-${school}`,
  })
  return [
    [
      'In this filter, mechanical first does not keep the media cleaner. Once those layers are dirty, ',
      inline(round(first), 2),
      ' of the water bypasses it and brings dirt into the media. With the fine pad last it is ',
      inline(round(last), 2),
      '. Seal the gap, or clean sooner.',
    ],
  ]
}

/** When it is due, with the ends of the interval, and why. */
function saidDue({ middle, soonest, latest }: DueFigures, answers: ClogAnswers): Sentence {
  const end: Sentence = latest ? [inline(latest, 2)] : ['over a year']
  if (!middle)
    return soonest
      ? ['Probably no cleaning needed within a year. Earliest: after ', inline(soonest, 2), '.']
      : ['No cleaning needed within a year.']
  return [
    'Clean it after ',
    inline(middle, 2),
    ...(soonest ? [' (range ', inline(soonest, 2), ' to ', ...end, ')'] : []),
    `. By then ${whyDue(answers) ?? ''}.`,
  ]
}

/** Dirt seen beside none: half of what a tenth of a per cent rounds to. */
const NONE = 0.0005

/** What of the dirt ends in bio media, behind the layer that catches most; `counts`: that layer is bio media itself. */
export function reaches(run: ForecastReport, counts: boolean): Sentence {
  const all = toMediaFigure(run)
  const own = Math.max(...run.answers.shares)
  if (counts && all.value - own < 0.005) return [', and is bio media itself.']
  if (counts) return [', and is bio media itself. In all, ', inline(all), ' ends in bio media.']
  return all.value < NONE
    ? ['; hardly any reaches the bio media.']
    : ['; ', inline(all), ' reaches the bio media.']
}

/** Sentences above a forecast: what blinds first, when the filter is due and why, and where the dirt goes. */
export function clogSentences(run: ForecastReport, due: DueFigures): readonly Sentence[] {
  const { answers, layers } = run
  const blind = answers.blind ? layers[answers.blind.layer] : undefined
  const most = answers.shares.indexOf(Math.max(...answers.shares))
  return [
    saidDue(due, answers),
    ...(blind
      ? [
          [
            answers.blind?.day === null
              ? `${the(blind.label)} ${agrees(blind.label, 'fills most but does', 'fill most but do')} not clog within a year.`
              : `${the(blind.label)} ${agrees(blind.label, 'clogs', 'clog')} first.`,
          ],
        ]
      : []),
    ...(layers[most] && (answers.shares[most] ?? 0) > 0.005
      ? [
          [
            `${the(layers[most].label)} ${agrees(layers[most].label, 'catches', 'catch')} `,
            inline(share('clog-most', `Dirt caught in ${lowerFirst(layers[most].label)}`, answers.shares[most] ?? 0, {})), // prettier-ignore
            ' of the dirt',
            ...reaches(run, layers[most].counts),
          ] as Sentence,
        ]
      : []),
  ]
}

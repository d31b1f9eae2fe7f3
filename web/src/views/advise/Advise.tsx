import { advise, standingOf, type Advice } from '@ypsometer/core/advice/advise'
import { explain, priceWords, sayPrice, unknownWords } from '@ypsometer/core/advice/words'
import { ladderFor } from '@ypsometer/core/advice/ladder'
import { ladderWords, presentSteps } from '@ypsometer/core/advice/present'
import { overtaking } from '@ypsometer/core/advice/score'
import { unratedOf } from '@ypsometer/core/advice/prices'
import type { Candidate, Choice } from '@ypsometer/core/advice/candidate'
import { together } from '@ypsometer/core/judging/together'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { useMemo } from 'react'
import { Link, useLocation } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { useHouseRules } from '../../api/lists'
import { Words } from '../../figures/Words'
import { GiveRate } from '../../frame/Rates'
import { Failed, Loading } from '../../frame/States'
import { knownOf } from '../../tank/running'
import { useRanking, type Ranking } from '../../workers/useRanking'
import { CRITERION } from '@ypsometer/core/advice/criteria'
import { ScoreBar } from './ScoreBar'
import { Taps } from './Taps'
import { useAsk, type Ask } from './useAsk'
import { Heading } from '../../frame/Heading'

/** So many options are drawn against each other, and shown. */
const DRAWN = 12

/** The counter: a tank in a few taps, and the models and pairs that will do, each with its reasons. */
export function Advise() {
  const ask = useAsk()
  const { data, error, isPending, refetch } = useCandidates()
  const candidates = useMemo(() => (data ?? []).flatMap((d) => d.candidate ?? []), [data])
  const old = data?.filter((d) => d.old).length ?? 0
  return (
    <>
      <Heading>Advise</Heading>
      <p className="muted max-w-2xl">
        Describe the tank in a few taps. Suitable filters come first, with reasons; unsuitable ones say why.{' '}
        <Link to="/rankings" className="link">
          Best filter for every tank
        </Link>
      </p>
      <div className="mt-5 grid gap-x-10 gap-y-8 lg:grid-cols-[23rem_minmax(0,1fr)]">
        <Taps ask={ask} />
        <div className="min-w-0">
          {isPending && <Loading />}
          {error && !data && <Failed error={error} what="your filters" retry={() => void refetch()} />}
          {old > 0 && (
            <p role="status" className="text-warning mb-3 text-[0.95rem]">
              {old} of {data?.length} models are being recalculated: their numbers are from before the last
              change.
            </p>
          )}
          {data && <Answer ask={ask} candidates={candidates} />}
        </div>
      </div>
    </>
  )
}

function Answer({ ask, candidates }: { readonly ask: Ask; readonly candidates: readonly Candidate[] }) {
  const { record, wishes, rule } = ask
  const list = useMemo(
    () => (record && typeof record !== 'string' ? advise({ tank: record, wishes, rule }, candidates) : []),
    [record, wishes, rule, candidates],
  )
  const will = useMemo(() => list.filter((a) => standingOf(a) === 'will'), [list])
  const unsure = useMemo(() => list.filter((a) => standingOf(a) === 'unknown'), [list])
  const drawn = will.slice(0, DRAWN)
  const ranking = useRanking(
    drawn.map((a) => a.measures),
    rule.weights,
    JSON.stringify([drawn.map((a) => [a.id, a.measures]), rule.weights]),
  )
  if (typeof record === 'string')
    return (
      <p role="alert" className="text-error">
        {record}
      </p>
    )
  if (!record) return <Loading />
  if (!candidates.length)
    return (
      <p className="max-w-xl">
        None of your filters is ready for advice yet.{' '}
        <Link to="/" className="link">
          Add one
        </Link>
        : a filter known only by its label is listed as “not tested”.
      </p>
    )
  const alone = list.filter((a) => standingOf(a) === 'alone')
  const wont = list.filter((a) => standingOf(a) === 'wont')
  return (
    <div className="space-y-8 max-lg:pb-14">
      <a
        href="#will-title"
        className="bg-base-100 border-base-content fixed inset-x-0 !m-0 bottom-0 z-20 block border-t px-4 py-3 lg:hidden"
      >
        <span className="font-bold">{will.length ? suitable(will.length) : 'No suitable option'}</span>
        {will[0] && <span className="muted ml-2">first: {will[0].name}</span>}
      </a>
      <Present ask={ask} tank={record} list={list} />
      <section aria-labelledby="will-title">
        <h2 id="will-title">{will.length ? suitable(will.length) : 'No suitable option'}</h2>
        <p role="status" className="sr-only">
          {will[0] ? `${suitable(will.length)}; first: ${will[0].name}` : 'No suitable option'}
        </p>
        <p className="muted max-w-2xl text-[0.95rem]">
          <Words
            sentence={ladderWords(ladderFor({ water: record.water.value, stock: record.stock }, rule), list)}
          />
        </p>
        {!will.length && (
          <p className="mt-2 max-w-2xl">
            Nothing fits every requirement. Closest options below: relax a limit or add media.
          </p>
        )}
        <Drawing ranking={ranking} />
        <ol className="mt-3">
          {drawn.map((a, i) => (
            <Option
              key={a.id}
              advice={a}
              place={i}
              tank={record}
              ask={ask}
              ranking={ranking}
              first={drawn[0]}
            />
          ))}
        </ol>
        {will.length > drawn.length && (
          <p className="muted mt-2 text-[0.92rem]">
            Showing the first {drawn.length} of {will.length}.
          </p>
        )}
        <Changes drawn={drawn} ask={ask} />
      </section>
      <Unrated list={[...drawn, ...unsure.slice(0, DRAWN)]} ask={ask} />
      {unsure.length > 0 && (
        <Unsure list={unsure.slice(0, DRAWN)} more={unsure.length - DRAWN} tank={record} ask={ask} />
      )}
      {alone.length > 0 && (
        <Wont id="alone-title" title="Enough alone, but the house rules want two" list={alone} />
      )}
      {wont.length > 0 && <Wont id="wont-title" title="Not suitable" list={wont} />}
    </div>
  )
}

const suitable = (n: number): string => `${n} suitable ${n === 1 ? 'option' : 'options'}`

/** Prices in a currency that the house has no rate for: it is asked for here, when it is first needed. */
function Unrated({ list, ask }: { readonly list: readonly Advice[]; readonly ask: Ask }) {
  const { house } = useHouseRules()
  const prices = list.flatMap((a) =>
    a.choices.flatMap(({ candidate, fill }) => [candidate.price, ...fill.uses.map((u) => u.price)]),
  )
  const unrated = unratedOf(
    prices.flatMap((p) => p?.currency ?? []),
    ask.rule,
  )
  if (!house || !unrated.length) return null
  return (
    <section aria-labelledby="rate-title">
      <h2 id="rate-title">A rate is missing</h2>
      <p className="muted max-w-2xl text-[0.95rem]">
        Some of these are priced in another currency. Give its rate once, with its day: it holds everywhere,
        and stands in the rules.
      </p>
      {unrated.map((currency) => (
        <GiveRate key={currency} currency={currency} house={house} />
      ))}
    </section>
  )
}

function Drawing({ ranking: { progress, ranked, failure, stop } }: { readonly ranking: Ranking }) {
  if (failure)
    return (
      <p role="alert" className="text-error text-[0.92rem]">
        How sure the ranking is cannot be drawn. {failure}
      </p>
    )
  // Its line stays when it is done: the list below does not move from under a finger.
  if (ranked || progress === null) return <div className="h-6" />
  return (
    <p className="muted flex h-6 items-center gap-3 text-[0.92rem]">
      <progress className="progress w-32" value={progress} max={1} aria-label="Drawing how sure it is" />
      <button type="button" className="btn btn-xs" onClick={stop}>
        Stop
      </button>
    </p>
  )
}

interface OptionProps {
  readonly advice: Advice
  readonly place: number
  readonly tank: TankRecord
  readonly ask: Ask
  readonly ranking: Ranking
  readonly first: Advice | undefined
}

function Option({ advice: a, place, tank, ask, ranking }: OptionProps) {
  const { reasons, needs } = useMemo(() => explain(tank, a, ask.rule.weights), [tank, a, ask.rule.weights])
  const { search } = useLocation()
  const drawn = ranking.ranked?.options[place]
  return (
    <li className="rule-b grid gap-x-6 gap-y-2 py-3 md:grid-cols-[minmax(0,1fr)_15rem]">
      <div className="min-w-0">
        <h3 className="flex flex-wrap items-baseline gap-x-3">
          <span className="num muted">{place + 1}</span>
          <span>{a.name}</span>
        </h3>
        <ul className="mt-1 space-y-0.5 text-[0.97rem]">
          {reasons.map((r, i) => (
            <li key={i}>
              <Words sentence={r} />
            </li>
          ))}
        </ul>
        {needs.length > 0 && (
          <p className="mt-1 text-[0.92rem]">
            <span className="kicker mr-2">Also needed</span>
            {needs.map((n, i) => (
              <span key={i} className="mr-1">
                <Words sentence={n} />
              </span>
            ))}
          </p>
        )}
      </div>
      <div className="min-w-0">
        <p className="num text-[1.15rem] font-semibold">
          {a.price ? (
            <>
              {a.unpriced.length > 0 && <span className="muted text-[0.85rem] font-normal">from </span>}
              {sayPrice(a.price)}
            </>
          ) : (
            <span className="muted text-[0.95rem]">price not known</span>
          )}
        </p>
        {a.unpriced.length > 0 && (
          <p className="muted text-[0.85rem]">without a price: {a.unpriced.join(', ')}</p>
        )}
        {a.year && (
          <p className="muted text-[0.88rem]">
            and about{' '}
            <span className="num">
              {sayPrice({ ...a.year, minor: Math.round(a.year.minor / 100) * 100 })}
            </span>{' '}
            a year
          </p>
        )}
        <ScoreBar score={a.score} drawn={drawn} draws={ranking.ranked?.draws} />
        <Link
          to={`/advise/slip${withOption(search, a)}`}
          className="btn btn-sm mt-2"
          aria-label={`Slip for ${a.name}`}
        >
          Slip
        </Link>
      </div>
    </li>
  )
}

const withOption = (search: string, a: Advice): string => {
  const p = new URLSearchParams(search)
  p.set('option', a.id)
  return `?${p}`
}

/** Which weight would change the winner. */
function Changes({ drawn, ask }: { readonly drawn: readonly Advice[]; readonly ask: Ask }) {
  const [a, b] = drawn
  if (!a || !b) return null
  const [least] = overtaking(a.measures, b.measures, ask.rule.weights)
  return (
    <p className="muted mt-3 max-w-2xl text-[0.92rem]">
      {least
        ? `${b.name} would win if ${CRITERION[least.criterion].name} mattered ${least.to < least.from ? 'less' : 'more'} (${Math.round(least.to)} instead of ${Math.round(least.from)}).`
        : `No weight of one criterion alone would put ${b.name} first.`}{' '}
      <Link to="/rules" className="link">
        House weights
      </Link>
    </p>
  )
}

/** Options that will do by all that is known, and what is not known of them. */
function Unsure({
  list,
  more,
  tank,
  ask,
}: {
  readonly list: readonly Advice[]
  readonly more: number
  readonly tank: TankRecord
  readonly ask: Ask
}) {
  const { search } = useLocation()
  return (
    <section aria-labelledby="unsure-title">
      <h2 id="unsure-title">Not tested</h2>
      <ul className="mt-1">
        {list.map((a) => {
          const [reason] = explain(tank, a, ask.rule.weights).reasons
          return (
            <li
              key={a.id}
              className="rule-b grid gap-x-6 gap-y-1 py-2 sm:grid-cols-[13rem_minmax(0,1fr)_auto] sm:items-baseline"
            >
              <span className="font-medium">{a.name}</span>
              <span className="min-w-0 text-[0.95rem]">
                <span className="text-warning font-medium">{unknownWords(a)}</span>
                {reason && (
                  <span className="block">
                    <Words sentence={reason} />
                  </span>
                )}
                <span className="muted block">{priceWords(a) ?? 'price not known'}</span>
              </span>
              <Link
                to={`/advise/slip${withOption(search, a)}`}
                className="btn btn-sm justify-self-start"
                aria-label={`Slip for ${a.name}`}
              >
                Slip
              </Link>
            </li>
          )
        })}
      </ul>
      {more > 0 && <p className="muted mt-2 text-[0.92rem]">And {more} more.</p>}
    </section>
  )
}

function Wont({
  id,
  title,
  list,
}: {
  readonly id: string
  readonly title: string
  readonly list: readonly Advice[]
}) {
  return (
    <section aria-labelledby={id}>
      <h2 id={id}>{title}</h2>
      <ul className="mt-1">
        {list.map((a) => (
          <li key={a.id} className="rule-b grid gap-x-6 py-1.5 sm:grid-cols-[13rem_minmax(0,1fr)]">
            <span>{a.name}</span>
            <span className="text-[0.95rem]">
              {a.stops[0] && <Words sentence={a.stops[0].sentence} />}
              {a.stops.length > 1 && (
                <span className="muted">
                  {' '}
                  And {a.stops.length - 1} more {a.stops.length > 2 ? 'reasons' : 'reason'}.
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

const STEP_WORDS = { keep: 'Keep', refill: 'Change media', add: 'Add', replace: 'Replace' } as const

/** Filters that run on the tank already, and what can be done with them. */
function Present({
  ask,
  tank,
  list,
}: {
  readonly ask: Ask
  readonly tank: TankRecord
  readonly list: readonly Advice[]
}) {
  const { data } = useCandidates()
  const { data: bias } = useLabelBias()
  const steps = useMemo(() => {
    const known = (ask.tank?.filters ?? []).map((f) => knownOf(f, data ?? [], bias ?? null))
    if (!known.length) return []
    const present = known.flatMap(({ filter, candidate }): Choice[] => {
      if (!candidate) return []
      const refilled = filter.fill === 'proposed' && candidate.proposed !== null
      const fill = refilled ? candidate.proposed : candidate.shipped
      return fill ? [{ candidate, fill, refilled }] : []
    })
    const running = known.flatMap((k) => k.running ?? [])
    return presentSteps(tank, present, together(tank, running), list, ask.rule)
  }, [ask.tank, ask.rule, tank, data, bias, list])
  if (!steps.length) return null
  return (
    <section aria-labelledby="present-title">
      <h2 id="present-title">What they have</h2>
      <ul className="mt-1">
        {steps.map((s) => (
          <li key={s.id} className="rule-b grid grid-cols-[5rem_minmax(0,1fr)] gap-x-3 py-1.5 text-[0.97rem]">
            <span className={`kicker pt-0.5 ${s.enough ? '' : '!text-warning'}`}>{STEP_WORDS[s.id]}</span>
            <span>
              <Words sentence={s.sentence} />{' '}
              {s.enough ? '' : <span className="text-warning">Not enough for this tank.</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

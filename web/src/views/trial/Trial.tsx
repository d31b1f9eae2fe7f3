import { houseOf } from '@ypsometer/contract/house'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import {
  ENOUGH_CASES,
  onTrial,
  trialCase,
  type SchoolOnTrial,
  type TrialCase,
} from '@ypsometer/core/judging/trial'
import { SCHOOLS } from '@ypsometer/core/tanks/schools'
import type { CapacitySchool } from '@ypsometer/core/tanks/rule'
import { showPercent, showQuantity } from '@ypsometer/core/units/format'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { useHouseRules, useJudgedClasses, useTanks, useWaterTests } from '../../api/lists'
import { changeRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import { Heading } from '../../frame/Heading'
import { Failed, Loading } from '../../frame/States'
import { toast } from '../../frame/toastStore'
import { units } from '../../settings/settings'
import { readTank } from '../../tank/readTank'
import { knownOf } from '../../tank/running'
import { right, Sheet } from '../../figures/Sheet'

/** Every tank on record as a case, by the classes and rules in force; null while something is still read. */
function useCases(): {
  readonly cases: readonly TrialCase[] | null
  readonly error: Error | null
  retry: () => void
} {
  const { tanks, error: noTanks, refetch } = useTanks()
  const { data: shelf, error: noShelf, refetch: shelfAgain } = useCandidates()
  const { data: tests, error: noTests, refetch: testsAgain } = useWaterTests()
  const { stock } = useJudgedClasses()
  const { data: bias } = useLabelBias()
  const cases = useMemo(() => {
    if (!tanks || !shelf || !tests || !stock) return null
    return tanks.flatMap((tank): TrialCase[] => {
      const read = readTank(tank, stock)
      if ('problem' in read) return []
      const known = tank.filters.map((f) => knownOf(f, shelf, bias ?? null))
      // A filter of which nothing is known makes every prediction of the tank a guess.
      if (known.some((k) => !k.running)) return []
      const running = known.flatMap(({ running: r, filter }) => (r ? [{ ...r, since: filter.since }] : []))
      const own = tests.filter((t) => t.tankId === tank.id)
      const found = trialCase({ id: tank.id, tank: read.record }, running, own)
      return found ? [found] : []
    })
  }, [tanks, shelf, tests, stock, bias])
  const retry = (): void => {
    void refetch()
    void shelfAgain()
    void testsAgain()
  }
  return { cases, error: cases ? null : (noTanks ?? noShelf ?? noTests), retry }
}

/** Rules on trial: what each sizing rule said of the tanks on record, and what became of them. */
export function Trial() {
  const { cases, error, retry } = useCases()
  const { rules } = useHouseRules()
  const house = rules && houseOf(rules, null)
  const trial = useMemo(() => cases && onTrial(cases), [cases])
  return (
    <>
      <Heading>Rules on trial</Heading>
      <p className="muted max-w-3xl">
        Every tank with its filters and a water test is a case. Each rule said beforehand how likely the tank
        was to hold; ammonia and nitrite then said whether it did. A minimum circulation says what is too
        little, never what is enough, so it is not tried.{' '}
        <Link to="/rules" className="link">
          House rules
        </Link>
      </p>
      {error && <Failed error={error} what="the cases" retry={retry} />}
      {!error && !trial && <Loading />}
      {trial && cases && (
        <div className="mt-5 space-y-8">
          {cases.length === 0 ? (
            <p className="max-w-xl">
              No case yet. Note the filters of a tank, and test its water once they have run for six weeks.
            </p>
          ) : (
            <>
              <section aria-labelledby="schools-title">
                <h2 id="schools-title">
                  {trial.tooFew
                    ? `Too few to tell: ${trial.cases} of ${ENOUGH_CASES} cases`
                    : `${trial.cases} cases`}
                </h2>
                <Schools schools={trial.schools} />
                {house && (
                  <p className="mt-3 flex flex-wrap items-center gap-3">
                    <button
                      type="button"
                      className="btn btn-sm"
                      disabled={trial.tooFew}
                      onClick={() => {
                        const weights = Object.fromEntries(
                          trial.schools.map((s) => [s.school, Math.round(s.weight * 1000) / 10]),
                        )
                        changeRow('house-rules', house, { capacity: { ...house.capacity, weights } })
                        toast(`Weights used by “${house.name}”.`)
                      }}
                    >
                      Use these weights
                    </button>
                    <span className="muted text-[0.92rem]">
                      {trial.tooFew
                        ? `From ${ENOUGH_CASES} cases on, “${house.name}” can use them.`
                        : `“${house.name}” then uses them for the confidence of verdicts.`}
                    </span>
                  </p>
                )}
              </section>
              <Cases cases={cases} schools={trial.schools.map((s) => s.school)} />
            </>
          )}
        </div>
      )}
    </>
  )
}

/** A weight is said no nearer to none or all than this. */
const EDGE = 0.01

const share = (id: string, label: string, value: number, more: Partial<Figure>): Figure => ({
  id,
  label,
  value,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  ...more,
})

function Schools({ schools }: { readonly schools: readonly SchoolOnTrial[] }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Rules on trial, table">
      <Sheet
        className="mt-2 min-w-[44rem]"
        columns={[
          'Rule',
          'Who says it',
          right('Cases'),
          right('Said to hold'),
          right('And did'),
          right('Right per case'),
          right('Earned weight'),
        ]}
      >
        {schools.map((s) => (
          <tr key={s.school}>
            <td className="font-medium">{SCHOOLS[s.school].words}</td>
            <td className="muted text-[0.9rem]">{SCHOOLS[s.school].origin.who}</td>
            <td className="r num">{s.cases}</td>
            <td className="r num">{s.said}</td>
            <td className="r">
              {s.calibration ? (
                <>
                  <span className="num">
                    {s.held} of {s.said}
                  </span>
                  <span className="muted num block text-[0.85rem]">
                    {showPercent(s.calibration[0])} to {showPercent(s.calibration[1])}
                  </span>
                </>
              ) : (
                <span className="muted">–</span>
              )}
            </td>
            <td className="r">
              <FigureView
                figure={share(
                  `per-case-${s.school}`,
                  'Chance it gave to what happened, per case',
                  s.perCase,
                  {
                    formula: '(Π p)^(1/n), p the chance given to what happened',
                    working: [put('n', 'cases', s.cases)],
                    conditions: ['a coin has 50 %'],
                  },
                )}
                bare
              />
            </td>
            <td className="r">
              {s.weight < EDGE && 'under '}
              {s.weight > 1 - EDGE && 'over '}
              <FigureView
                figure={share(
                  `weight-${s.school}`,
                  'Weight it would earn',
                  Math.min(1 - EDGE, Math.max(EDGE, s.weight)),
                  {
                    formula: 'w ∝ Π p, from equal weights',
                    working: [put('n', 'cases that all rules spoke of', s.cases)],
                    source: 'Bayes’ rule',
                  },
                )}
                bare
              />
            </td>
          </tr>
        ))}
      </Sheet>
    </div>
  )
}

function Cases({
  cases,
  schools,
}: {
  readonly cases: readonly TrialCase[]
  readonly schools: readonly CapacitySchool[]
}) {
  const system = units.use()
  const reads = (v: number): string => {
    const s = showQuantity(v, 'concentration', system, 2)
    return `${s.number} ${s.unit}`
  }
  return (
    <section aria-labelledby="cases-title">
      <h2 id="cases-title">The cases</h2>
      <p className="muted max-w-3xl text-[0.95rem]">
        Each rule shows the chance it gave the tank. Tests count once every filter has run for six weeks, and
        not after an ammonia-binding conditioner.
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Cases, table">
        <Sheet
          className="mt-2 min-w-[44rem]"
          columns={['Tank', ...schools.map((s) => right(SCHOOLS[s].words)), right('Tests'), 'What happened']}
        >
          {cases.map((c) => (
            <tr key={c.id}>
              <td>
                <Link to={`/tanks/${c.id}`} className="link">
                  {c.name}
                </Link>
                <span className="muted block text-[0.85rem]">{c.filters.join(' and ')}</span>
              </td>
              {schools.map((s) => {
                const p = c.said.find((x) => x.school === s)?.chance
                const right = p !== undefined && p > 0.5 === c.held
                return (
                  <td key={s} className={`r num ${p !== undefined && !right ? 'text-error' : ''}`}>
                    {p === undefined ? '–' : showPercent(p, 0)}
                  </td>
                )
              })}
              <td className="r num">{c.tests}</td>
              <td>
                {c.held ? (
                  'held: both read 0'
                ) : (
                  <span className="text-error">
                    did not hold: ammonia up to {reads(c.worst.ammonia)}, nitrite up to{' '}
                    {reads(c.worst.nitrite)}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
    </section>
  )
}

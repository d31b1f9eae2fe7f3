import { advise, type Advice } from '@ypsometer/core/advice/advise'
import { slipOf, slipText } from '@ypsometer/core/advice/slip'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { Printer, Save, Share2 } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useLocation, useSearchParams } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { useDossiers } from '../../api/dossier'
import { useHouseRules, useJudgedClasses, useMedia } from '../../api/lists'
import { changeRow } from '../../api/rows'
import { Words } from '../../figures/Words'
import { units } from '../../settings/settings'
import { Failed, Loading } from '../../frame/States'
import { toast } from '../../frame/toastStore'
import { dayFromNow, today } from '../../settings/when'
import { useDue } from '../../workers/useLiving'
import { useAsk } from './useAsk'
import { Heading } from '../../frame/Heading'

const PAPERS = [
  ['a4', 'A4'],
  ['letter', 'Letter'],
  ['receipt', 'Receipt, 80 mm'],
] as const
type Paper = (typeof PAPERS)[number][0]

const NO_CHOICES: Advice['choices'] = []

/** Days that each choice runs on the tank until it is due; null for one without a forecast, undefined on the way. */
function useServiceDays(
  choices: Advice['choices'],
  tank: TankRecord | null,
): readonly (number | null)[] | undefined {
  const ids = [...new Set(choices.map((c) => c.candidate.id))]
  const { dossiers, isPending } = useDossiers(ids)
  const { media } = useMedia()
  const { stock } = useJudgedClasses()
  const { house } = useHouseRules()
  const bias = useLabelBias()
  const ready = tank && media && stock && house && !isPending && !bias.isPending
  const asked = ready
    ? choices.map((c) => {
        const dossier = dossiers.find((d) => d.model.id === c.candidate.id)
        const by = { stockClasses: stock, bias: bias.data }
        const dueAt = 1 - (house.upkeep.fall ?? UPKEEP_RULE.fall)
        return dossier && { dossier, fillId: c.fill.fill.id, media, by, tank, dueAt }
      })
    : null
  const there = asked?.flatMap((q) => q ?? []) ?? null
  const { answer, failure } = useDue(there?.length ? there : null)
  if (failure) return choices.map(() => null)
  if (!asked || !there || (answer?.length ?? 0) !== there.length) return undefined
  return asked.map((q) => (q ? (answer?.[there.indexOf(q)] ?? null) : null))
}

/** One page to take home; printed, sent, or kept with the tank. */
export function Slip() {
  const ask = useAsk()
  const [params] = useSearchParams()
  const { search } = useLocation()
  const [paper, setPaper] = useState<Paper>('a4')
  const system = units.use()
  const { data, error, isPending, refetch } = useCandidates()
  const { record, wishes, rule, told } = ask
  const id = params.get('option')
  const option = useMemo((): Advice | undefined => {
    if (!record || typeof record === 'string') return undefined
    const candidates = (data ?? []).flatMap((d) => d.candidate ?? [])
    return advise({ tank: record, wishes, rule }, candidates).find((a) => a.id === id)
  }, [record, wishes, rule, data, id])
  const due = useServiceDays(
    option?.choices ?? NO_CHOICES,
    record && typeof record !== 'string' ? record : null,
  )
  const back = `/advise${search}`
  if (isPending || !record) return <Loading />
  if (error && !data) return <Failed error={error} what="your filters" retry={() => void refetch()} />
  if (typeof record === 'string' || !option)
    return (
      <>
        <Heading>Slip</Heading>
        <p className="mt-3 max-w-xl">
          {typeof record === 'string' ? record : 'This option is not among those for the tank any more.'}{' '}
          <Link to={back} className="link">
            Back to the counter
          </Link>
        </p>
      </>
    )
  if (!due) return <Loading />
  const day = today()
  const parts = slipOf(record, told, option, {
    weights: rule.weights,
    dayAfter: dayFromNow,
    due,
    opens: rule.opens,
  })
  const text = `${slipText(parts, system)}\n\nAdvised on ${day}.`
  const send = async (): Promise<void> => {
    if (typeof navigator.share === 'function') await navigator.share({ title: option.name, text })
    else {
      await navigator.clipboard.writeText(text)
      toast('Copied: paste it into a message.')
    }
  }
  const keep = (): void => {
    if (!ask.tank) return
    const visit = { id: crypto.randomUUID().slice(0, 8), on: day, what: 'advice', text } as const
    changeRow('tanks', ask.tank, { visits: [...ask.tank.visits, visit] })
    toast(`Kept with ${ask.tank.name}.`)
  }
  return (
    <>
      <div className="no-print mb-5 flex flex-wrap items-center gap-3">
        <Link to={back} className="link mr-3">
          Back to the counter
        </Link>
        <label className="flex items-baseline gap-2">
          Paper
          <select
            className="select select-sm w-auto"
            value={paper}
            onChange={(e) => setPaper(e.target.value as Paper)}
          >
            {PAPERS.map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="btn btn-sm btn-primary" onClick={() => window.print()}>
          <Printer size={16} aria-hidden="true" /> Print
        </button>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => void send().catch(() => toast('It was not sent.'))}
        >
          <Share2 size={16} aria-hidden="true" /> Send
        </button>
        {ask.tank && (
          <button type="button" className="btn btn-sm" onClick={keep}>
            <Save size={16} aria-hidden="true" /> Keep with the tank
          </button>
        )}
      </div>
      <article className={`slip slip-${paper}`} aria-label="Slip">
        <header className="border-base-content flex items-baseline justify-between gap-4 border-b pb-1">
          <Heading>Filter advice</Heading>
          <span className="num muted">{day}</span>
        </header>
        {parts.map((p) => (
          <section key={p.id} className="mt-3 break-inside-avoid" aria-label={p.heading}>
            <h2>{p.heading}</h2>
            <ul>
              {p.lines.map((l, i) => (
                <li key={i} className="text-[0.97rem]">
                  <Words sentence={l} />
                </li>
              ))}
            </ul>
          </section>
        ))}
      </article>
    </>
  )
}

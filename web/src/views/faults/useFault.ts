import type { FaultSearch, Tank } from '@ypsometer/contract'
import { houseOf } from '@ypsometer/contract/house'
import type { FaultQuestion } from '@ypsometer/contract/faults'
import { evidenceOf, nothingKnown } from '@ypsometer/core/hands/evidence'
import { search, type Evidence, type Search } from '@ypsometer/core/hands/faults'
import type { CheckOutcome, Symptom } from '@ypsometer/core/hands/vocabulary'
import type { FilterKind } from '@ypsometer/core/kinds/filters'
import { useMemo } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { useDossiers } from '../../api/dossier'
import {
  useFaultSearches,
  useHouseRules,
  useJudgedClasses,
  useMedia,
  useSetUps,
  useTanks,
} from '../../api/lists'
import { changeRow, createRow } from '../../api/rows'
import { today } from '../../settings/when'
import { useEvidence } from '../../workers/useLiving'
import { SYMPTOMS } from '@ypsometer/core/hands/vocabulary'

/** Subject of the search: a model of the shelf or a kind, at a tank or at none, and what is wrong with it. */
export interface Subject {
  readonly modelId: string | null
  readonly kind: FilterKind | null
  readonly label: string
  readonly tankId: string | null
  readonly symptom: Symptom | null
}

export interface Fault {
  readonly subject: Subject
  readonly row: FaultSearch | null
  /** Asked for by its address and not there. */
  readonly gone: boolean
  readonly name: string
  readonly tank: Tank | null
  readonly found: Search | null
  readonly evidence: readonly Evidence[]
  readonly busy: boolean
  readonly failure: string | null
  readonly searches: readonly FaultSearch[]
  readonly nameOf: (s: Pick<FaultSearch, 'modelId' | 'label' | 'kind'>) => string
  readonly choose: (what: Readonly<Record<string, string>>) => void
  readonly answer: (check: string, outcome: CheckOutcome | null, seen?: string) => void
}

/** A search as its row or the address has it, with what the record says of it. */
export function useFault(id: string | undefined): Fault {
  const [params, setParams] = useSearchParams()
  const navigate = useNavigate()
  const { searches = [], isPending } = useFaultSearches()
  const { data: candidates = [] } = useCandidates()
  const { tanks = [] } = useTanks()
  const row = searches.find((s) => s.id === id) ?? null
  const fromAddress = subjectOf(params)
  const subject: Subject = row ?? fromAddress
  const tank = tanks.find((t) => t.id === subject.tankId) ?? null
  const nameOf: Fault['nameOf'] = (s) =>
    candidates.find((c) => c.id === s.modelId)?.candidate?.name ?? (s.label || 'a filter without a name')
  const record = useRecord(subject, tank, row?.on ?? today())
  const kind = record.kind ?? subject.kind
  const { evidence, parts } = record
  const found = useMemo(
    () => (subject.symptom ? search(subject.symptom, kind, evidence, row?.outcomes ?? {}, parts) : null),
    [subject.symptom, kind, evidence, row?.outcomes, parts],
  )
  const answer: Fault['answer'] = (check, outcome, seen) => {
    const { [check]: _, ...rest } = row?.outcomes ?? {}
    const outcomes = outcome ? { ...rest, [check]: outcome } : rest
    const said = seen === undefined ? (row?.seen ?? {}) : { ...row?.seen, [check]: seen }
    const ended = Object.values(outcomes).includes('cured') ? today() : null
    if (row) return changeRow('fault-searches', row, { outcomes, seen: said, ended })
    if (!subject.symptom) return
    const { modelId, label, tankId, symptom } = subject
    const made = createRow('fault-searches', { modelId, kind, label, tankId, symptom, on: today(), outcomes, seen: said, ended }) // prettier-ignore
    void navigate(`/faults/${made}`, { replace: true })
  }
  return {
    subject: { ...subject, kind },
    row,
    gone: id !== undefined && !row && !isPending,
    name: record.name ?? nameOf(subject),
    tank,
    found,
    evidence,
    busy: record.busy,
    failure: record.failure,
    searches,
    nameOf,
    choose: (what) =>
      setParams(
        (p) => {
          for (const [k, v] of Object.entries(what))
            if (v) p.set(k, v)
            else p.delete(k)
          return p
        },
        { replace: true, preventScrollReset: true },
      ),
    answer,
  }
}

const isSymptom = (s: string | null): s is Symptom => (SYMPTOMS as readonly (string | null)[]).includes(s)

const subjectOf = (p: URLSearchParams): Subject => ({
  modelId: p.get('model'),
  kind: (p.get('kind') as FilterKind | null) ?? null,
  label: p.get('label') ?? '',
  tankId: p.get('tank'),
  symptom: isSymptom(p.get('symptom')) ? (p.get('symptom') as Symptom) : null,
})

/** Evidence of the filter’s record, worked out in a worker where it is on the shelf. */
function useRecord(subject: Subject, tank: Tank | null, today: string) {
  const { dossiers } = useDossiers(subject.modelId ? [subject.modelId] : [])
  const { media } = useMedia()
  const { rules } = useHouseRules(null)
  const { stock } = useJudgedClasses()
  const { data: bias = null } = useLabelBias()
  const { setUps } = useSetUps()
  const [dossier] = dossiers
  const question = useMemo(
    (): FaultQuestion | null =>
      dossier && media && rules && stock && setUps
        ? {
            dossier,
            media,
            house: houseOf(rules, dossier.model.houseRuleId) ?? null,
            stock,
            bias,
            tank,
            setUps,
            today,
          }
        : null,
    [dossier, media, rules, stock, bias, tank, setUps, today],
  )
  const { answer, failure, busy } = useEvidence(question)
  const plain = useMemo(() => {
    const filter = tank?.filters.find((f) => f.modelId === null && f.kind === subject.kind)
    return evidenceOf({
      ...nothingKnown(subject.kind, today),
      belowRim: tank ? tank.height - tank.waterLevel : null,
      since: filter?.since ?? null,
    })
  }, [tank, subject.kind, today])
  const parts = useMemo(
    () => (dossier?.parts.length ? dossier.parts.map((p) => p.checklist) : null),
    [dossier?.parts],
  )
  return {
    parts,
    kind: dossier?.model.kind ?? null,
    name: dossier?.model.name ?? null,
    evidence: subject.modelId ? (answer ?? NOTHING) : plain,
    busy: subject.modelId !== null && (busy || (!question && !failure)),
    failure,
  }
}
const NOTHING: readonly Evidence[] = []

import {
  modelRecord,
  type Dossier,
  type HouseRule,
  type Medium,
  type ShelfRow,
  type StockClassRow,
} from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import { classesUnder } from '../tanks/stock'
import { assess } from '@ypsometer/core/judging/assess'
import { claimed } from '@ypsometer/core/trials/labels'
import { printedFigure } from '@ypsometer/core/trials/printed'
import type { LabelBias } from '@ypsometer/core/trials/bias'

/** Context of a row of the shelf besides the model's own dossier. */
export interface ShelfBasis {
  readonly stock: readonly StockClassRow[]
  readonly rules: readonly HouseRule[]
  readonly media: readonly Medium[]
  readonly bias: LabelBias
}

/** Row of one model on the shelf, and what it brings to a tank, computed from its dossier. */
export function shelfRow(
  d: Dossier,
  { stock, rules, media, bias }: ShelfBasis,
): { readonly row: Omit<ShelfRow, 'model' | 'old'>; readonly candidate: Candidate } {
  const record = modelRecord(d, media)
  const a = assess(record, { stockClasses: classesUnder(stock, rules, d.model.houseRuleId), bias })
  const rated = claimed(record, 'rated-flow')
  const top = claimed(record, 'tank-max')
  const row = {
    ratedFlow: rated ? printedFigure(rated) : null,
    flow: a.verdict.flow,
    basis: a.verdict.basis,
    supportedMax: a.verdict.supported,
    claimedMax: top ? printedFigure(top) : null,
    overclaim: a.verdict.overclaim,
    level: a.verdict.level,
    borderline: a.verdict.borderline,
    split: a.verdict.split ? a.verdict.words : null,
    claimsDone: a.progress.claims,
    benchDone: a.progress.bench,
    problem: null,
    missing: a.verdict.missing.map((m) => m.id),
    next: a.progress.next.station === 'verdict' ? null : a.progress.next.action,
  }
  return { row, candidate: candidateOf(d, media, a) }
}

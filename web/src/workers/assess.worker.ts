import { assess, type ModelRecord } from '@ypsometer/core/judging'
import type { StockClass } from '@ypsometer/core/tanks'
import { expose } from 'comlink'

const work = {
  assess: (model: ModelRecord, stock: readonly StockClass[] | undefined) => assess(model, stock),
}
export type AssessWork = typeof work
expose(work)

import { houseOf, judgedClasses, type Tank } from '@ypsometer/contract'
import { snapshotOf, type ReviewQuestion, type Snapshot } from '@ypsometer/contract/review'
import { CORE_VERSION } from '@ypsometer/core/review/sheet'
import { and, eq, isNull } from 'drizzle-orm'
import type { Db } from '../db/client'
import { model, tank } from '../db/schema'
import { travelling } from '../http/rows'
import { fieldProblem } from '../http/problems'
import { dossiers } from '../models/queries'
import { shelfBasis } from '../models/shelfEntries'
import { PROGRAM } from '../program'

/** Letters of the program’s name that tell one build from another. */
const SHORT = 10

/**
 * Grounds of a review of a model on a day.
 * @throws a problem naming `modelId` where there is no such model.
 */
export async function reviewQuestion(db: Db, modelId: string, today: string): Promise<ReviewQuestion> {
  const rows = await db
    .select()
    .from(model)
    .where(and(eq(model.id, modelId), isNull(model.deletedAt)))
  const [dossier] = await dossiers(db, rows)
  if (!dossier) throw fieldProblem('modelId', 'a model that is on the shelf')
  const basis = await shelfBasis(db)
  const house = houseOf(basis.rules, dossier.model.houseRuleId)
  const tanks = await db.select().from(tank).where(isNull(tank.deletedAt))
  return {
    dossier,
    media: basis.media,
    house: house ?? null,
    stock: judgedClasses(basis.stock, house),
    bias: basis.bias,
    tanks: tanks.map((t) => travelling(t) as Tank),
    today,
    core: `${CORE_VERSION}+${PROGRAM.slice(0, SHORT)}`,
  }
}

/**
 * Takes the numbers of a model as they stand on a day.
 * @throws as {@link reviewQuestion}; CoreError where it cannot be worked out.
 */
export const takeSnapshot = async (db: Db, modelId: string, today: string): Promise<Snapshot> =>
  snapshotOf(await reviewQuestion(db, modelId, today))

/** Today, as the server’s calendar has it. */
export const dayOfServer = (): string => new Date().toISOString().slice(0, 10)

import { RESOURCE_NAMES, RESOURCES, type ResourceName } from '@ypsometer/contract'
import { getTableName, sql } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { columnName } from './columns'
import type { Db } from './client'
import { TABLES } from './schema'

const tableOf = (name: string): string => getTableName(TABLES[name as ResourceName])

/** The models whose shelf rows a write touches, as a query of the rows `written`; null for a list of its own. */
function touchedModels(name: ResourceName): string | null {
  const { servedIn, links } = RESOURCES[name]
  if (servedIn === 'list') return null
  if (name === 'models') return 'SELECT id FROM written'
  const owners = links.filter((l) => l.owner)
  if (owners.some((l) => l.to === 'models')) return 'SELECT model_id FROM written'
  const models = owners.map((_, i) => `o${i}.model_id`).join(', ')
  const joins = owners
    .map(
      ({ to, path: [field = ''] }, i) =>
        `LEFT JOIN "${tableOf(to)}" o${i} ON o${i}.id = w.${columnName(field)}`,
    )
    .join(' ')
  return `SELECT coalesce(${models}) FROM written w ${joins}`
}

/** Rows kept in step with those of a kind. */
const BESIDES: { readonly [N in ResourceName]?: string } = {
  claims: `UPDATE shelf_entry s SET rated_flow = coalesce((SELECT c.value FROM claim c WHERE c.model_id = s.model_id
      AND c.quantity = 'rated-flow' AND c.deleted_at IS NULL ORDER BY c.created_at, c.id LIMIT 1), 0)
      WHERE s.model_id IN (SELECT model_id FROM written WHERE quantity = 'rated-flow');`,
}

/** Effect of a write to a kind of row: the shelf is old, and every page is told. */
function triggersOf(name: ResourceName): string {
  const table = tableOf(name)
  const models = touchedModels(name)
  const told = models
    ? `PERFORM touch_shelf(ARRAY(${models}));`
    : `IF EXISTS (SELECT FROM written) THEN
      PERFORM pg_notify('record', json_build_object('list', '${name}', 'by', current_setting('ypsometer.by', true))::text);
    END IF;`
  const on = (what: string): string =>
    `DROP TRIGGER IF EXISTS touch_on_${what} ON "${table}";
  CREATE TRIGGER touch_on_${what} AFTER ${what} ON "${table}" REFERENCING NEW TABLE AS written
    FOR EACH STATEMENT EXECUTE FUNCTION "touched_${table}"();`
  return `CREATE OR REPLACE FUNCTION "touched_${table}"() RETURNS trigger LANGUAGE plpgsql AS $body$
  BEGIN
    ${told}
    ${BESIDES[name] ?? ''}
    RETURN NULL;
  END $body$;
  ${on('insert')}
  ${on('update')}
  DROP TRIGGER IF EXISTS written_by_somebody ON "${table}";
  CREATE TRIGGER written_by_somebody BEFORE INSERT OR UPDATE OR DELETE ON "${table}"
    FOR EACH STATEMENT EXECUTE FUNCTION "written_by_somebody"();`
}

/** Nothing is written that the history could not say who wrote: see `asPerson` and `asProgram`. */
const SIGNED = `CREATE OR REPLACE FUNCTION "written_by_somebody"() RETURNS trigger LANGUAGE plpgsql AS $body$
  BEGIN
    IF coalesce(current_setting('ypsometer.signed', true), '') = '' THEN
      RAISE EXCEPTION 'a write says who writes' USING ERRCODE = '28000';
    END IF;
    RETURN NULL;
  END $body$;`

const ALL = [SIGNED, ...RESOURCE_NAMES.map(triggersOf)].join('\n')
const MARK = createHash('sha256').update(ALL).digest('hex')

/** Are the triggers of this version there? */
export async function hasTriggers(db: Pick<Db, 'execute'>): Promise<boolean> {
  const { rows } = await db.execute<{ mark: string | null }>(
    sql`select obj_description(to_regproc('written_by_somebody'), 'pg_proc') as mark`,
  )
  return rows[0]?.mark === MARK
}

/** Brings the triggers of every kind of row to what the contract declares of it. */
export async function installTriggers(db: Db): Promise<void> {
  await db.transaction(async (tx) => {
    // Two servers that start at once take turns.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('triggers'))`)
    if (await hasTriggers(tx as unknown as Db)) return
    await tx.execute(sql.raw(ALL))
    await tx.execute(sql.raw(`COMMENT ON FUNCTION "written_by_somebody"() IS '${MARK}'`))
  })
}

import type { Db } from './client'
import { sql } from 'drizzle-orm'

/** The role that the app's own processes come as, and the one that keeps what nobody changes. */
export const APP = 'ypsometer_app'
const KEEPER = 'ypsometer_keeper'
/** History and published editions. */
const KEPT = ['row_change', 'review_edition']

/**
 * Hands the record to the app's role, and its history and published editions to another: the app adds to those and
 * reads them, and can neither change nor empty them, nor switch off what guards them. Needs the roles.
 */
export async function handOver(db: Db): Promise<void> {
  const { rows } = await db.execute(sql`select 1 from pg_roles where rolname = ${APP}`)
  if (!rows.length) return
  const kept = KEPT.map((t) => `'${t}'`).join(', ')
  await db.execute(
    sql.raw(`do $$
    declare t record;
    begin
      for t in select schemaname as s, tablename as n, format('%I.%I', schemaname, tablename) as full_name,
          tableowner as owner from pg_tables where schemaname in ('public', 'pgboss') loop
        if t.s = 'public' and t.n in (${kept}) then
          if t.owner <> '${KEEPER}' then execute format('alter table %s owner to ${KEEPER}', t.full_name); end if;
          execute format('revoke all on %s from ${APP}', t.full_name);
          execute format('grant select, insert on %s to ${APP}', t.full_name);
        elsif t.owner <> '${APP}' then execute format('alter table %s owner to ${APP}', t.full_name);
        end if;
      end loop;
      for t in select format('%I.%I', n.nspname, c.relname) as full_name from pg_class c
          join pg_namespace n on n.oid = c.relnamespace join pg_roles r on r.oid = c.relowner
          where c.relkind = 'S' and n.nspname = 'public' and r.rolname = '${KEEPER}' loop
        execute format('grant usage, select on sequence %s to ${APP}', t.full_name);
      end loop;
      if to_regnamespace('pgboss') is not null then
        alter schema pgboss owner to ${APP};
        for t in select p.oid::regprocedure as full_name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
            where n.nspname = 'pgboss' loop
          execute format('alter routine %s owner to ${APP}', t.full_name);
        end loop;
        for t in select format('%I.%I', n.nspname, y.typname) as full_name from pg_type y
            join pg_namespace n on n.oid = y.typnamespace where n.nspname = 'pgboss' and y.typtype = 'e' loop
          execute format('alter type %s owner to ${APP}', t.full_name);
        end loop;
      end if;
    end $$`),
  )
  for (const statement of [
    `grant usage on schema public, drizzle to ${APP}`,
    `grant usage on schema public to ${KEEPER}`,
    `grant select on all tables in schema drizzle to ${APP}`,
    `grant select on all sequences in schema drizzle to ${APP}`,
    `revoke create on schema public from public, ${APP}`,
  ])
    await db.execute(sql.raw(statement))
}

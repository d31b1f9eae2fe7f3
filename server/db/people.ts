import { CHANGE_ACTIONS, PASS_PURPOSES, ROLES, type ResourceName } from '@ypsometer/contract'
import { sql } from 'drizzle-orm'
import {
  bigint,
  check,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  uniqueIndex,
  uuid,
  varchar,
} from 'drizzle-orm/pg-core'
import { quoted, stamp } from './columns'

/** Who may sign in, and as what. One who was removed stays for the record's sake. */
export const account = pgTable(
  'account',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    role: text('role', { enum: ROLES }).notNull(),
    /** argon2id, with its parameters and salt; null until a password was chosen. */
    passwordHash: text('password_hash'),
    createdAt: stamp('created_at').notNull().defaultNow(),
    removedAt: stamp('removed_at'),
  },
  (t) => [
    uniqueIndex('account_name')
      .on(sql`lower(${t.name})`)
      .where(sql`${t.removedAt} is null`),
    check('account_role', sql`${t.role} in ${sql.raw(quoted(ROLES))}`),
  ],
)

const accountId = () =>
  uuid('account_id')
    .notNull()
    .references(() => account.id, { onDelete: 'cascade' })

/** A signed-in browser; of its secret only a hash is kept. */
export const session = pgTable(
  'session',
  {
    id: uuid('id').primaryKey(),
    accountId: accountId(),
    secretHash: text('secret_hash').notNull().unique(),
    createdAt: stamp('created_at').notNull().defaultNow(),
    seenAt: stamp('seen_at').notNull().defaultNow(),
    endsAt: stamp('ends_at').notNull(),
    address: text('address').notNull(),
    agent: text('agent').notNull().default(''),
  },
  (t) => [index('session_of_account').on(t.accountId)],
)

/** A link that lets one person choose a password, once; of its secret only a hash is kept. */
export const pass = pgTable(
  'pass',
  {
    id: uuid('id').primaryKey(),
    accountId: accountId(),
    purpose: text('purpose', { enum: PASS_PURPOSES }).notNull(),
    secretHash: text('secret_hash').notNull().unique(),
    createdAt: stamp('created_at').notNull().defaultNow(),
    endsAt: stamp('ends_at').notNull(),
    usedAt: stamp('used_at'),
  },
  (t) => [index('pass_of_account').on(t.accountId)],
)

/** Tries to sign in, counted by account and by address; kept by the library that limits them. */
export const signInTry = pgTable('sign_in_try', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
})

/** Subjects of the history: rows of the record, and who may do what with it. */
export type Remembered = ResourceName | 'people' | 'shares'

/** A deed on a row, by whom and when; never changed after, which a trigger sees to. */
export const rowChange = pgTable(
  'row_change',
  {
    id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    at: stamp('at').notNull().defaultNow(),
    /** Who did it; nobody where the program itself did. */
    who: uuid('who'),
    whoName: text('who_name').notNull().default(''),
    action: text('action', { enum: CHANGE_ACTIONS }).notNull(),
    resource: text('resource').$type<Remembered>().notNull(),
    rowId: uuid('row_id').notNull(),
    /** The model whose dossier it is in. */
    modelId: uuid('model_id'),
    /** Name of the row. */
    name: text('name').notNull().default(''),
    /** The fields that changed, as they were and as they became. */
    before: jsonb('before').$type<Record<string, unknown>>().notNull().default({}),
    after: jsonb('after').$type<Record<string, unknown>>().notNull().default({}),
    /** The change that this one takes back. */
    undoes: bigint('undoes', { mode: 'number' }),
  },
  (t) => [
    index('row_change_of_model').on(t.modelId, t.id),
    index('row_change_of_row').on(t.rowId, t.id),
    index('row_change_undoes').on(t.undoes),
    check('row_change_action', sql`${t.action} in ${sql.raw(quoted(CHANGE_ACTIONS))}`),
  ],
)

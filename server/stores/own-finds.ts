import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Choice, OwnAsked, OwnRule } from '../../core/opportunity/own/own-finds'
import type { Db } from '../db/database'
import { savingsChoice, savingsRule } from '../db/schema'

/** What people look for beside what is always looked for. */
export async function ownAsked(db: Pick<Db, 'select'>): Promise<OwnAsked> {
  const [chosen, rules] = await Promise.all([listChoices(db), listRules(db)])
  return { chosen, rules: rules.map(({ id, definition }) => ({ id, ...definition })) }
}

async function listChoices(db: Pick<Db, 'select'>): Promise<Choice[]> {
  const rows = await db.select().from(savingsChoice).orderBy(savingsChoice.provider, savingsChoice.resourceId, savingsChoice.sku)
  return rows.map(({ provider, resourceId, sku, way: key }) => ({ provider, resourceId, sku, key }))
}

/** What was chosen of what is charged for under a SKU, by resource. */
export async function choicesUnder(db: Pick<Db, 'select'>, provider: string, sku: string): Promise<Map<string, string>> {
  const isOf = and(eq(savingsChoice.provider, provider), eq(savingsChoice.sku, sku))
  const rows = await db.select().from(savingsChoice).where(isOf)
  return new Map(rows.map(({ resourceId, way }) => [resourceId, way]))
}

/** Keeps what was chosen; of one resource and SKU in place of what was chosen before. */
export async function keepChoices(db: Db, choices: readonly Choice[], who: string): Promise<void> {
  if (!choices.length) return
  const { provider, resourceId, sku } = savingsChoice
  await db
    .insert(savingsChoice)
    .values(choices.map(({ key: way, ...of }) => ({ ...of, way, who })))
    .onConflictDoUpdate({ target: [provider, resourceId, sku], set: { way: sql`excluded.way`, who, at: sql`now()` } })
}

/** Takes back what was chosen for some resources. */
export async function dropChoices(
  db: Db,
  { provider, sku }: Pick<Choice, 'provider' | 'sku'>,
  resources: readonly string[],
): Promise<void> {
  const isOf = and(eq(savingsChoice.provider, provider), eq(savingsChoice.sku, sku), inArray(savingsChoice.resourceId, [...resources]))
  await db.delete(savingsChoice).where(isOf)
}

export type StoredRule = typeof savingsRule.$inferSelect

/** Rules of one's own, the oldest first. */
export const listRules = (db: Pick<Db, 'select'>): Promise<StoredRule[]> =>
  db.select().from(savingsRule).orderBy(savingsRule.at, savingsRule.id)

export async function addRule(db: Db, { id, ...definition }: OwnRule, who: string): Promise<void> {
  await db.insert(savingsRule).values({ id, definition, who })
}

/** @returns false when there is none. */
export async function removeRule(db: Db, id: string): Promise<boolean> {
  return (await db.delete(savingsRule).where(eq(savingsRule.id, id)).returning({ id: savingsRule.id })).length > 0
}

import { eq, sql } from 'drizzle-orm'
import { Decimal, decimalText } from '../../core/money/decimal'
import type { Opportunity } from '../../core/opportunity/opportunity'
import type { SetThreshold } from '../../core/opportunity/thresholds'
import type { OpportunityNote, SavingsDecision } from '../../shared/contracts/savings'
import type { Db } from '../db/database'
import { savingsDecision, savingsSetting, savingsThreshold } from '../db/schema'

export type StoredDecision = typeof savingsDecision.$inferSelect

/** What was decided, by opportunity. */
export async function listDecisions(db: Pick<Db, 'select'>): Promise<Map<string, StoredDecision>> {
  return new Map((await db.select().from(savingsDecision)).map(row => [row.opportunityId, row]))
}

/** Keeps what somebody decides about some opportunities: all of it or, where anything fails, none. */
export async function decide(db: Db, about: readonly Opportunity[], asked: Omit<SavingsDecision, 'ids'>, who: string): Promise<void> {
  await db.transaction(tx => decideIn(tx, about, asked, who))
}

/** The same inside a transaction. */
export async function decideIn(
  tx: Pick<Db, 'insert'>,
  about: readonly Opportunity[],
  asked: Omit<SavingsDecision, 'ids'>,
  who: string,
): Promise<void> {
  const at = new Date().toISOString()
  const note: OpportunityNote[] = asked.note === undefined ? [] : [{ at, who, text: asked.note }]
  const { state, reason, lookAgain, doneOn, due } = asked
  // a state comes with what was said of it; without one, what was said stays
  const decided =
    state === undefined
      ? {}
      : {
          state: state === 'spotted' ? null : state,
          reason: reason ?? null,
          lookAgain: lookAgain ?? null,
          doneOn: state === 'done' ? (doneOn ?? at.slice(0, 10)) : null,
        }
  for (const body of about) {
    // who writes a note or moves a day has not decided it
    const row = { ...decided, ...(due !== undefined && { due }), ...(state !== undefined && { body, who, at }) }
    await tx
      .insert(savingsDecision)
      .values({ opportunityId: body.id, body, who, at, notes: note, ...row })
      .onConflictDoUpdate({
        target: savingsDecision.opportunityId,
        set: { ...row, notes: sql`${savingsDecision.notes} || ${JSON.stringify(note)}::jsonb` },
      })
  }
}

/** What thresholds are set to. */
export async function listThresholds(db: Pick<Db, 'select'>): Promise<SetThreshold[]> {
  const rows = await db
    .select()
    .from(savingsThreshold)
    .orderBy(savingsThreshold.detector, savingsThreshold.key, savingsThreshold.subAccount)
  return rows.map(({ detector, key, subAccount, value }) => ({ detector, key, subAccount, value: Number(value) }))
}

/** Above which monthly saving together a second person has to approve; null where nobody has to. */
export async function secondPersonAbove(db: Pick<Db, 'select'>): Promise<string | null> {
  const [row] = await db.select().from(savingsSetting).where(eq(savingsSetting.key, 'second person above'))
  return row ? decimalText(new Decimal(row.value)) : null
}

export async function setSecondPersonAbove(db: Db, value: string | null, who: string): Promise<void> {
  const key = 'second person above' as const
  if (value === null) await db.delete(savingsSetting).where(eq(savingsSetting.key, key))
  else await db.insert(savingsSetting).values({ key, value, who }).onConflictDoUpdate({ target: savingsSetting.key, set: { value, who } })
}

/** Sets thresholds in place of all that were set. */
export async function saveThresholds(db: Db, set: readonly SetThreshold[], who: string): Promise<void> {
  await db.transaction(async tx => {
    await tx.delete(savingsThreshold)
    if (set.length) await tx.insert(savingsThreshold).values(set.map(one => ({ ...one, value: String(one.value), who })))
  })
}

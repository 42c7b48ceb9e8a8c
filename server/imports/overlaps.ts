import { inArray } from 'drizzle-orm'
import type { ImportOverlap } from '../../shared/contracts/imports'
import type { Db } from '../db/database'
import { billingAccount } from '../db/schema'
import type { CubeClient } from '../engine/cube-client'

/**
 * Other sources whose charges of the same billing period stand on the same billing account: loading both would count the money twice.
 * @param accounts ids of the billing accounts of the new delivery by billing period.
 */
export async function findOverlaps(cube: CubeClient, db: Db, source: string, accounts: Record<string, number[]>): Promise<ImportOverlap[]> {
  const ids = [...new Set(Object.values(accounts).flat())]
  if (!ids.length) return []
  const { result: loaded } = await cube.ask('billingAccounts', undefined)
  const names = new Map(
    (await db.select().from(billingAccount).where(inArray(billingAccount.id, ids))).map(row => [
      row.id,
      (row as Record<string, unknown>).BillingAccountId as string,
    ]),
  )
  return loaded.flatMap(chunk => {
    if (chunk.source === source) return []
    const start = Object.keys(accounts).find(own => Date.parse(own) === Date.parse(chunk.billingPeriodStart))
    const own = new Set(start ? accounts[start]!.map(id => names.get(id)) : [])
    const both = chunk.accountIds.filter(id => own.has(id))
    return both.length
      ? [
          {
            source: chunk.source,
            billingPeriodStart: chunk.billingPeriodStart,
            billingAccountIds: both,
            others: chunk.accountIds.filter(id => !own.has(id)),
          },
        ]
      : []
  })
}

import { dictionaryNames } from '../core/focus/star'
import { ABSENT, amountTextOf, measureNames } from '../core/spend/segment'
import { billingPeriod } from '../server/db/schema'
import { columnName } from '../server/db/schema/dictionary'
import { instantOf, isoInstant } from '../core/time/instant'
import { currencyList, storedSegments } from '../server/charges/stored-segments'
import type { Services } from '../server/services'

/** Writes all charges as rows of a table `charge` of the embedded database, as a star schema in plain SQL would keep them. */
export async function fillChargeRows({ database, charges }: Pick<Services, 'database' | 'charges'>): Promise<void> {
  const { db } = database
  await database.query(`create unlogged table charge (load_id int, billing_period_start timestamptz, charge_period_start timestamptz, charge_period_end timestamptz, billing_currency char(3),
    ${dictionaryNames.map(name => `"${columnName(name)}" int`).join()}, ${measureNames.map(name => `"${columnName(name)}" numeric(38, 15)`).join()})`)
  for (const { loadId, start } of await db.select().from(billingPeriod)) {
    const { currencies, code } = currencyList()
    for await (const { rows, time, currency, keys, absent, measures } of storedSegments(charges, loadId, start, code)) {
      const lines: string[] = []
      for (let row = 0; row < rows; row++) {
        lines.push(
          [
            loadId,
            isoInstant(start),
            instantOf(time.starts[time.codes[row]!]!),
            instantOf(time.ends[time.codes[row]!]!),
            currencies[currency[row]!],
            ...dictionaryNames.map(name => keys[name].ids[keys[name].codes[row]!]),
            ...measureNames.map(name => (absent[row]! & (ABSENT[name] ?? 0) ? '' : amountTextOf(measures[name], row))),
          ].join(),
        )
      }
      await database.copyIn('charge', 'format csv', Buffer.from(lines.join('\n') + '\n'))
    }
  }
  await database.query('create index on charge (load_id, billing_period_start)')
  await database.query('analyze charge')
}

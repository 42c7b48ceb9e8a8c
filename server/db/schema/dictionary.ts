import { integer, pgTable, text } from 'drizzle-orm/pg-core'
import { dictionaries, type DictionaryName } from '../../../core/focus/star'

/** `BillingAccountId` → `billing_account_id` */
export function columnName(focusName: string): string {
  return focusName.replace(/([a-z0-9])([A-Z])/g, '$1_$2').toLowerCase()
}

/** `subAccount` → `sub_account`: the table of a dictionary. */
export function tableName(dictionary: DictionaryName): string {
  return `focus_${columnName(dictionary)}`
}

const dictionaryTable = (dictionary: DictionaryName) =>
  pgTable(tableName(dictionary), {
    /** Given by the database: entries are never taken away, and an entry of a higher id was never kept before one of a lower. */
    id: integer('id').primaryKey().generatedByDefaultAsIdentity(),
    /** Hash of the values: one entry for one combination. */
    digest: text('digest').notNull().unique(),
    ...Object.fromEntries(dictionaries[dictionary].map(column => [column, text(columnName(column))])),
  })

export const billingAccount = dictionaryTable('billingAccount')
export const subAccount = dictionaryTable('subAccount')
export const resource = dictionaryTable('resource')
export const sku = dictionaryTable('sku')
export const price = dictionaryTable('price')
export const commitment = dictionaryTable('commitment')
export const chargeKind = dictionaryTable('chargeKind')
export const tagSet = dictionaryTable('tagSet')
export const others = dictionaryTable('others')

export const dictionaryTables = {
  billingAccount,
  subAccount,
  resource,
  sku,
  price,
  commitment,
  chargeKind,
  tagSet,
  others,
} satisfies Record<DictionaryName, unknown>

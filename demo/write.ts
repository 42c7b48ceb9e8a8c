// Writes the demo's files into a folder: charges of every source and month, rate cards, estimates, patterns, uplifts, cost centres with
// rules, people.
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Decimal } from '../core/money/decimal'
import {
  accountTree,
  exchangeRates,
  foreignBill,
  invoiceLines,
  ledgerLookup,
  requiredTags,
  savedSentences,
  type InvoiceSum,
} from './beside-the-bill'
import { correctedDelivery, demoDeliveries } from './deliveries'
import type { FileCharge } from './focus-file'
import { demoEstimates } from './estimates'
import { writeFocusFile } from './focus-file'
import { laterPlan } from './later-plan'
import { allocationPlan, people } from './organisation'
import { lateCorrection } from './planted'
import { standingOrders } from './standing-orders'
import { brackwaterCard, larkfieldCard, pierHouseCard } from './rate-cards'
import { demoPatterns, demoUplifts } from './reusable'

const folder = process.argv[2] ?? '.data/demo-files'
mkdirSync(folder, { recursive: true })
const json = (name: string, value: unknown) => writeFileSync(join(folder, name), JSON.stringify(value, null, 1) + '\n')
json('rate-card-brackwater.json', brackwaterCard)
json('rate-card-larkfield.json', larkfieldCard)
json('rate-card-pier-house.json', pierHouseCard)
json('patterns.json', demoPatterns)
json('uplifts.json', demoUplifts)
json('estimates.json', demoEstimates)
json('cost-centres.json', { people, plan: allocationPlan })
json('later-plan.json', laterPlan(allocationPlan))
json('account-tree.json', accountTree)
json('required-tags.json', requiredTags)
json('lookup-ledger.json', ledgerLookup)
json('sentences.json', savedSentences)
json('standing-orders.json', standingOrders)
writeFileSync(join(folder, 'exchange-rates.csv'), exchangeRates())
writeFileSync(join(folder, 'quayside-net-2026-10.csv'), foreignBill())

/** October's invoices: the sums of its charges, as they are written. */
const invoices = new Map<string, InvoiceSum>()
function* counted(source: string, month: string, charges: Iterable<FileCharge>): Generator<FileCharge> {
  for (const charge of charges) {
    if (month === '2026-10' && charge.InvoiceId) {
      const invoice = invoices.get(charge.InvoiceId) ?? {
        issuer: source,
        invoiceId: charge.InvoiceId,
        month,
        currency: charge.BillingCurrency!,
        total: new Decimal(0),
        tax: new Decimal(0),
      }
      invoices.set(charge.InvoiceId, invoice)
      invoice.total = invoice.total.plus(charge.BilledCost!)
      if (charge.ChargeCategory === 'Tax') invoice.tax = invoice.tax.plus(charge.BilledCost!)
    }
    yield charge
  }
}
let rows = 0
const listed: { source: string; file: string; month: string; rows: number }[] = []
for (const { source, file, month, charges } of demoDeliveries()) {
  const count = await writeFocusFile(join(folder, file), counted(source, month, charges()))
  rows += count
  listed.push({ source, file, month, rows: count })
}
json('deliveries.json', listed)
const { provider, month, file } = lateCorrection
await writeFocusFile(join(folder, file), correctedDelivery())
json('late-correction.json', { source: provider, month, file })
writeFileSync(join(folder, 'invoices-2026-10.csv'), invoiceLines(invoices.values()))
console.log(`${listed.length} files with ${rows} charges in ${folder}`)

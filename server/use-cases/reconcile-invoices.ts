import { reconcile, type InvoiceCharges } from '../../core/spend/reconcile'
import type { Scope } from '../../core/spend/question'
import { addDays, monthEnd, monthStart, type Day, type Month } from '../../core/time/day'
import { daysIn, runsWithout, type DayRun } from '../../core/time/day-runs'
import type { InvoiceView } from '../../shared/contracts/invoices'
import type { ChargesSeen } from '../charges/charges-seen'
import type { Work } from './work'
import { listInvoices } from '../stores/invoices'

type StoredInvoice = Awaited<ReturnType<typeof listInvoices>>[number]
/** So many runs of days are named one by one. */
const MOST_RUNS = 5

/** Every invoice held against its loaded charges: those that name it, or all of its issuer's month where charges name no invoice. */
export async function reconcileInvoices({ database, seen }: Pick<Work, 'database' | 'seen'>): Promise<InvoiceView[]> {
  const views: InvoiceView[] = []
  for (const invoice of await listInvoices(database.db)) views.push(await reconcileInvoice(seen, invoice))
  return views
}

async function reconcileInvoice(seen: ChargesSeen, invoice: StoredInvoice): Promise<InvoiceView> {
  const { issuer, invoiceId, month, tax } = invoice
  // corrections may be about any day: what counts is the billing month
  const scope = { start: '1970-01-01', end: '2200-01-01', keep: { InvoiceIssuerName: [issuer] }, leaveOut: {}, billingMonth: month }
  const splitBy = ['InvoiceId', 'ChargeCategory']
  const { result: groups } = await seen.ask('group', { ...scope, splitBy, grain: null, measures: ['billedCost'] })
  const named = groups.filter(group => group.values.InvoiceId === invoiceId)
  const own = named.length ? named : groups.filter(group => group.values.InvoiceId === null)
  const charges = own.map((group): InvoiceCharges => ({
    currency: group.currency,
    isTax: group.values.ChargeCategory === 'Tax',
    amount: group.amounts[0]!,
    charges: group.count,
  }))
  const others = [
    ...new Set(groups.map(group => group.values.InvoiceId).filter((other): other is string => other !== null && other !== invoiceId)),
  ]
  const missing: string[] = []
  if (!groups.length) missing.push(`No charges of ${issuer} are loaded for this month.`)
  else if (!own.length)
    missing.push(
      `No charge of ${issuer} in this month names the invoice ${invoiceId}${others.length ? `; they name ${others.join(', ')}` : ''}.`,
    )
  else
    missing.push(
      ...(await missingDays(seen, { ...scope, keep: { ...scope.keep, InvoiceId: [named.length ? invoiceId : null] } }, issuer, month)),
    )
  if (own.length && tax !== null && !charges.some(line => line.isTax) && Number(tax) !== 0)
    missing.push('The invoice has tax, and no tax charge is loaded.')
  return { ...invoice, ...reconcile(invoice, charges), charges: charges.reduce((n, line) => n + line.charges, 0), missing }
}

/** Days of the month that none of the invoice's own charges covers, in words. */
async function missingDays(seen: ChargesSeen, scope: Scope, issuer: string, month: Month): Promise<string[]> {
  const last = addDays(monthEnd(month), -1)
  const { result: found } = await seen.ask('covered', scope)
  const gaps = runsWithout([[monthStart(month), last]], found.days)
  const tail = gaps.at(-1)?.[1] === last ? gaps.pop() : undefined
  const words: string[] = []
  if (gaps.length)
    words.push(
      `No charges on ${gaps.slice(0, MOST_RUNS).map(runText).join(', ')}${gaps.length > MOST_RUNS ? ` and ${daysIn(gaps.slice(MOST_RUNS))} more days` : ''}.`,
    )
  if (tail) words.push(`The charges of ${issuer} reach to ${addDays(tail[0], -1)}; the days after it are not loaded.`)
  return words
}

const runText = ([first, last]: DayRun): Day => (first === last ? first : `${first} to ${last}`)

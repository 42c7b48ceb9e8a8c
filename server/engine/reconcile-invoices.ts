import { reconcile, type InvoiceLine } from '../../core/spend/reconcile'
import { addDays, monthEnd, monthStart } from '../../core/time/day'
import type { InvoiceView } from '../../shared/contracts/invoices'
import type { Services } from '../services'
import { listInvoices } from '../stores/invoices'

const LINE = ['InvoiceIssuerName', 'InvoiceId', 'SubAccountName', 'ServiceName', 'SkuId', 'ChargeCategory'] as const

/** Every invoice held against its loaded charges: those that name it, or all of its issuer's month where charges name no invoice. */
export async function reconcileInvoices({ database, cube }: Pick<Services, 'database' | 'cube'>): Promise<InvoiceView[]> {
  const invoices = await listInvoices(database.db)
  const { result: facts } = await cube.ask('facts', undefined)
  const views: InvoiceView[] = []
  for (const { id, issuer, invoiceId, month, currency, total, tax, note, who, savedAt } of invoices) {
    // corrections may be about any day: what counts is the billing month
    const { result: groups } = await cube.ask('group', {
      splitBy: [...LINE],
      grain: null,
      start: '1970-01-01',
      end: '2200-01-01',
      keep: { InvoiceIssuerName: [issuer] },
      leaveOut: {},
      billingMonth: month,
      measures: ['billedCost'],
    })
    const named = groups.filter(group => group.values.InvoiceId === invoiceId)
    const own = named.length ? named : groups.filter(group => group.values.InvoiceId === null)
    const lines = own.map((group): InvoiceLine => ({
      currency: group.currency,
      isTax: group.values.ChargeCategory === 'Tax',
      amount: group.amounts[0]!,
    }))
    const others = [
      ...new Set(groups.map(group => group.values.InvoiceId).filter((other): other is string => other !== null && other !== invoiceId)),
    ]
    const last = facts.lastDayBySource[issuer]
    const missing: string[] = []
    if (!groups.length) missing.push(`No charges of ${issuer} are loaded for this month.`)
    else if (!own.length)
      missing.push(
        `No charge of ${issuer} in this month names the invoice ${invoiceId}${others.length ? `; they name ${others.join(', ')}` : ''}.`,
      )
    if (last && last >= monthStart(month) && last < addDays(monthEnd(month), -1))
      missing.push(`The charges of ${issuer} reach to ${last}; the days after it are not loaded.`)
    const gaps = (facts.missingDays[issuer] ?? []).filter(day => day.startsWith(month))
    if (gaps.length)
      missing.push(`No charges on ${gaps.slice(0, 5).join(', ')}${gaps.length > 5 ? ` and ${gaps.length - 5} more days` : ''}.`)
    if (own.length && tax !== null && !lines.some(line => line.isTax) && Number(tax) !== 0)
      missing.push('The invoice has tax, and no tax charge is loaded.')
    views.push({
      id,
      issuer,
      invoiceId,
      month,
      currency,
      total,
      tax,
      note,
      who,
      savedAt,
      ...reconcile({ currency, total, tax }, lines),
      lines: lines.length,
      missing,
    })
  }
  return views
}

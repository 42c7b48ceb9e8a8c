import { and, eq } from 'drizzle-orm'
import { Decimal, decimalText } from '../../core/money/decimal'
import { isCurrencyOn } from '../../core/money/currency'
import { invoiceInput, type InvoiceInput } from '../../shared/contracts/spend-settings'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { named } from './names'
import { invoice } from '../db/schema'
import { Problem } from '../problems/problem'

export async function listInvoices(db: Db) {
  const rows = await db.select(named(invoice)).from(invoice)
  return rows
    .map(row => ({ ...row, total: decimalText(new Decimal(row.total)), tax: row.tax === null ? null : decimalText(new Decimal(row.tax)) }))
    .sort((a, b) => (a.month === b.month ? (a.issuer < b.issuer ? -1 : 1) : a.month < b.month ? 1 : -1))
}

/** Keeps invoices; one of the same issuer and number is replaced. */
export async function saveInvoices(db: Db, list: InvoiceInput[], who: string): Promise<void> {
  await alone(db, 'invoices', async tx => {
    for (const one of list) {
      await tx.delete(invoice).where(and(eq(invoice.issuer, one.issuer), eq(invoice.invoiceId, one.invoiceId)))
      await tx.insert(invoice).values({ ...one, who })
    }
  })
}

export async function removeInvoice(db: Db, id: number): Promise<boolean> {
  return (await db.delete(invoice).where(eq(invoice.id, id)).returning({ id: invoice.id })).length > 0
}

/**
 * Reads the lines of a CSV with the columns issuer, invoice, month, currency, total, tax and, where known, lines and rounds.
 * @throws Problem naming every line that is wrong.
 */
export function readInvoices(lines: Record<string, string>[]): InvoiceInput[] {
  const errors: { field: string; reason: string }[] = []
  const list = lines.flatMap((line, i): InvoiceInput[] => {
    const text = (name: string) => (line[name] ?? '').trim()
    const read = invoiceInput.safeParse({
      issuer: text('issuer'),
      invoiceId: text('invoice'),
      month: text('month'),
      currency: text('currency'),
      total: text('total'),
      tax: text('tax') || null,
      lines: text('lines') === '' ? null : Number(text('lines')),
      rounds: text('rounds') || 'lines',
      note: text('note'),
    })
    if (!read.success)
      errors.push(
        ...read.error.issues.map(issue => ({
          field: `row ${i + 1}, ${issue.path[0] === 'invoiceId' ? 'invoice' : String(issue.path[0])}`,
          reason: issue.message,
        })),
      )
    else if (!isCurrencyOn(read.data.currency, `${read.data.month}-01`))
      errors.push({ field: `row ${i + 1}, currency`, reason: `«${read.data.currency}» is not an ISO 4217 currency that was in use then` })
    return read.success ? [read.data] : []
  })
  if (!lines.length) errors.push({ field: 'the file', reason: 'has no invoices below its header' })
  if (errors.length)
    throw new Problem(
      'invalid',
      'wrong-invoices',
      'The invoices were not taken',
      errors
        .slice(0, 20)
        .map(({ field, reason }) => `${field}: ${reason}`)
        .join('; '),
      errors,
    )
  return list
}

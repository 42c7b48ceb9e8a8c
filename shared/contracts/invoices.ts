import { z } from 'zod'
import { amountText } from './common'
import { invoiceInput } from './spend-settings'

/** An invoice beside what is loaded for it. */
export const invoiceView = invoiceInput.extend({
  id: z.number(),
  who: z.string(),
  savedAt: z.string(),
  state: z.enum(['equal', 'rounding', 'differs', 'nothing loaded']),
  loaded: amountText,
  loadedTax: amountText,
  difference: amountText,
  parts: z.array(z.object({ what: z.enum(['rounding', 'tax', 'unexplained']), amount: amountText })),
  otherCurrencies: z.array(z.string()),
  /** How many charges stand behind it. */
  charges: z.number(),
  /** What is not loaded, in words. */
  missing: z.array(z.string()),
})
export type InvoiceView = z.infer<typeof invoiceView>
export const invoiceViews = z.object({ invoices: z.array(invoiceView) })
export const invoicesTaken = z.object({ invoices: z.number() })

import { minorDecimals } from '../../../core/money/currency'
import { Decimal } from '../../../core/money/decimal'
import { roundToMinor } from '../../../core/money/rounding'
import type { DocumentFacts, DocumentLacks, EstimateDocument } from '../../../core/estimate/documents/document-types'
import type { Estimate } from '../../../core/estimate/estimate'
import type { Prices } from '../../../core/estimate/pricing/price-estimate'
import type { ExportFormat } from '../../../shared/contracts/estimates'

/** A file, or the document itself as JSON, which a link keeps. */
export type Written = ExportFormat | 'document'
/** What is written: an estimate with everything that prices it. */
export type ExportTask = {
  format: Written
  estimate: Estimate
  prices: Prices
  audience: EstimateDocument['audience']
  facts: DocumentFacts
}

/** One kind of thing that an estimate leaves as. */
export type Writer = { format: Written; write: (document: EstimateDocument, task: ExportTask) => Promise<Uint8Array> | Uint8Array }

/**
 * A text that a spreadsheet program will take as text: one that begins like a formula is put behind an apostrophe.
 * (CSV injection: OWASP advises the same characters.)
 */
export const asText = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text)

/** What stands beside a total that lacks rows: how many, and what they cost a month where that is known. */
export function lacksText({ rows, amounts }: DocumentLacks, currency: string): string {
  return `${rows} ${rows === 1 ? 'row' : 'rows'} not counted${amounts ? ` (${roundToMinor(new Decimal(amounts.effectiveMonthly), currency).toFixed(minorDecimals(currency))} ${currency} a month as it stands)` : ''}`
}

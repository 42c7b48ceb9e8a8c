import type { DecimalText } from '../../money/decimal'
import type { Working } from '../../working/working'
import type { FigureName } from '../pricing/price-estimate'

/** Figures as decimal text. */
export type FigureTexts = Record<FigureName, DecimalText>
/** A row as its readers see it. */
export type DocumentRow = {
  id: string
  label: string
  details: string
  where: string
  way: string
  figures: FigureTexts | null
  note: string
  muted: boolean
  problem: string | null
  /** What stands in its place where the document's scenario has it. */
  replaced: string
}
/** What the total may be, and what that is due to. */
export type DocumentRanges = {
  draws: number
  p10: number
  p50: number
  p90: number
  histogram: { from: number; to: number; counts: number[] }
  drivers: { label: string; low: number; high: number }[]
}
/** Rows that a total lacks: how many, and what they cost where that is known. */
export type DocumentLacks = { rows: number; amounts: FigureTexts | null }

/** An estimate as it leaves the house: plain text and figures, nothing to compute. */
export type EstimateDocument = {
  audience: 'own' | 'customer'
  title: string
  note: string
  version: number | null
  preparedOn: string
  preparedBy: string
  currency: string
  /** The cards that it is priced on; a customer sees their days only. */
  cards: { provider: string; date: string }[]
  /** Rates that amounts were converted at. */
  rates: { from: string; to: string; rate: string; day: string }[]
  place: string
  month: string
  termYears: number
  target: DecimalText | null
  /** The scenario that rows and totals are of; null for the estimate as it stands. */
  scenario: string | null
  /** What must be so for that scenario to hold. */
  conditions: string[]
  /** Rows that the total lacks; null when it lacks none. */
  lacks: DocumentLacks | null
  parts: { name: string; figures: FigureTexts; rows: DocumentRow[] }[]
  /** From the sum of the rows to the total. */
  summary: { label: string; figures: FigureTexts }[]
  /**
   * Every column of the estimate, the first as it stands; none where there are no scenarios. Differences are to the first, over the rows
   * that both can price.
   */
  columns: { name: string; figures: FigureTexts; difference: FigureTexts | null; lacks: DocumentLacks | null }[]
  assumptions: { label: string; value: string; effect: DecimalText | null }[]
  /** Assumptions that are not listed. */
  moreAssumptions: number
  dismissed: { title: string; reason: string }[]
  ranges: DocumentRanges | null
  /** How the monthly amount of each row was made. */
  workings: { label: string; working: Working }[]
}

/** Which of the columns a document is of, and who has prepared it when. */
export type DocumentFacts = { version: number | null; preparedOn: string; preparedBy: string; scenario?: string | null }

/** What the rows without a scenario are called. */
export const AS_IT_STANDS = 'as it stands'

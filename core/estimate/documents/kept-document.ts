import { usualWays } from '../../ratecard/earlier-words'
import { Decimal, decimalText } from '../../money/decimal'
import { evaluate, input, type Working, type WorkingTier } from '../../working/working'
import { AS_IT_STANDS, type DocumentRow, type EstimateDocument, type FigureTexts } from './document-types'
import { figureNames, figuresOf } from '../pricing/figures'

type Loose = Record<string, unknown>
const isRecord = (value: unknown): value is Loose => typeof value === 'object' && value !== null && !Array.isArray(value)
const text = (value: unknown): string => (typeof value === 'string' ? value : '')
const list = (value: unknown): Loose[] => (Array.isArray(value) ? value.filter(isRecord) : [])
const isAmount = (value: unknown): value is string => typeof value === 'string' && /^-?\d+(\.\d+)?$/.test(value)

function figures(value: unknown): FigureTexts | null {
  return isRecord(value) && figureNames.every(name => isAmount(value[name])) ? figuresOf(name => text(value[name])) : null
}

/** The list by which rows of a customer's copy are made anew; `where` loses its provider. */
function customersRow(row: Loose): DocumentRow {
  return {
    id: text(row.id),
    label: text(row.label),
    details: text(row.details),
    where: text(row.where).split(',')[0]!,
    way: usualWays(text(row.way)),
    figures: figures(row.figures),
    note: '',
    muted: false,
    problem: figures(row.figures) ? null : 'not priced',
    replaced: '',
  }
}

const SUMMARY: Record<string, string> = { credits: 'reduction' }

/**
 * A document that a link has kept, as it may be shown today. What a customer sees is built from the list again, whatever the document
 * holds; its figures stay as they were.
 * @returns null for what cannot be read: such a link opens nothing.
 */
export function keptDocument(body: unknown): EstimateDocument | null {
  if (!isRecord(body)) return null
  return body.audience === 'customer' ? customersCopy(body) : ownCopy(body)
}

function customersCopy(body: Loose): EstimateDocument | null {
  const summary = list(body.summary).map(({ label, figures: of }) => ({ label: SUMMARY[text(label)] ?? text(label), figures: figures(of) }))
  if (
    !text(body.title) ||
    !summary.length ||
    summary.some(line => line.figures === null || !/^(reduction|price|tax [\d.]+ %|total)$/.test(line.label))
  )
    return null
  const parts = list(body.parts).map(part => {
    const rows = list(part.rows)
      .filter(row => row.muted !== true)
      .map(customersRow)
    return { name: text(part.name), rows, figures: figures(part.figures) }
  })
  if (parts.some(part => part.figures === null)) return null
  const unpriced = parts.flatMap(part => part.rows).filter(row => row.figures === null).length
  return {
    audience: 'customer',
    title: text(body.title),
    note: '',
    version: null,
    preparedOn: text(body.preparedOn),
    preparedBy: '',
    currency: text(body.currency),
    cards: [...new Set(list(body.cards).map(card => text(card.date)))].map(date => ({ provider: '', date })),
    rates: [],
    place: text(body.place).split(',')[0]!,
    month: text(body.month),
    termYears: typeof body.termYears === 'number' ? body.termYears : 1,
    target: null,
    scenario: null,
    conditions: [],
    lacks: unpriced ? { rows: unpriced, amounts: null } : null,
    parts: parts as EstimateDocument['parts'],
    summary: summary as EstimateDocument['summary'],
    columns: [],
    assumptions: [],
    moreAssumptions: 0,
    dismissed: [],
    ranges: null,
    workings: [],
  }
}

type EarlierTiered = {
  op: 'tiered'
  tiering: string
  tiers: WorkingTier[]
  label: string
  unit?: string
  source?: string
  parts: Working[]
}

/**
 * Workings kept before lines were priced once for all rows: a quantity at tiers had what was drawn before it as its second part. It becomes
 * the plain figure that it was where something was.
 */
function presentWorking(working: Working): Working {
  if (working.op === 'input') return working
  const parts = working.parts.map(presentWorking)
  if (working.op !== 'tiered' || parts.length !== 3) return { ...working, parts } as Working
  const [quantity, before, allowance] = parts.map(evaluate) as [Decimal, Decimal, Decimal]
  if (before.eq(0)) return { ...working, parts: [parts[0]!, parts[2]!] } as Working
  return input(
    `${working.label}, ${decimalText(quantity)} ${working.unit} after ${decimalText(before)} drawn before`,
    earlierCost(working as unknown as EarlierTiered, quantity, before, allowance),
    undefined,
    working.source,
  )
}

function earlierCost({ tiering, tiers }: EarlierTiered, quantity: Decimal, before: Decimal, allowance: Decimal): Decimal {
  const to = before.plus(quantity)
  const begins = before.gt(allowance) ? before : allowance
  if (to.lte(begins)) return new Decimal(0)
  if (tiering === 'whole') return to.minus(begins).times(tiers.filter(tier => to.gte(tier.from)).at(-1)!.price)
  return tiers.reduce((sum, tier, i) => {
    const next = tiers[i + 1]
    const lower = begins.gt(tier.from) ? begins : new Decimal(tier.from)
    const upper = next && to.gt(next.from) ? new Decimal(next.from) : to
    return upper.gt(lower) ? sum.plus(upper.minus(lower).times(tier.price)) : sum
  }, new Decimal(0))
}

/** A document for one's own people, with what earlier ones did not have. */
function ownCopy(body: Loose): EstimateDocument | null {
  const own = body as unknown as EstimateDocument & { scenarios?: { name: string; figures: FigureTexts; difference: FigureTexts }[] }
  if (!Array.isArray(own.workings) || !Array.isArray(own.summary) || !Array.isArray(own.parts) || !own.summary.length) return null
  const { scenarios = [], ...kept } = own
  const columns =
    own.columns ??
    (scenarios.length
      ? [
          { name: AS_IT_STANDS, figures: own.summary.at(-1)!.figures, difference: null, lacks: null },
          ...scenarios.map(scenario => ({ ...scenario, lacks: null })),
        ]
      : [])
  const unpriced = own.parts.flatMap(part => part.rows).filter(row => row.figures === null && !row.muted).length
  return {
    ...kept,
    workings: own.workings.map(({ label, working }) => ({ label, working: presentWorking(working) })),
    columns,
    rates: own.rates ?? [],
    scenario: own.scenario ?? null,
    conditions: own.conditions ?? [],
    moreAssumptions: own.moreAssumptions ?? 0,
    lacks: own.lacks ?? (unpriced ? { rows: unpriced, amounts: null } : null),
    parts: own.parts.map(part => ({
      ...part,
      rows: part.rows.map(row => ({ ...row, way: usualWays(row.way), replaced: row.replaced ?? '' })),
    })),
  }
}

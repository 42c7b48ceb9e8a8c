import { Decimal, decimalText } from '../../money/decimal'
import type { FileProblem } from '../problem'
import { mappedNumbers, mappedTexts, mappedTimes, type Mapping } from './mapping'
import { endAfter, readDate, readNumber } from './read-text'
import { monthEnd } from '../../time/day'

/** A row of a mapped file: texts by the mapping's FOCUS header, what is wrong with it, or left out by the mapping. */
export type MappedRow = { texts: string[] } | { problems: FileProblem[] } | 'left out'
export type MappedFile = { header: string[]; row: (cells: readonly string[], number: number) => MappedRow }

/** Costs that a file does not tell apart are what was billed. */
const COSTS = ['EffectiveCost', 'ListCost', 'ContractedCost'] as const

/**
 * Makes the way from a file's rows to FOCUS texts. What a file does not say is filled in where the specification needs a value: usage,
 * the billing month of the charge, one provider for publisher and issuer.
 * @returns problems when the file lacks columns that the mapping names, or the mapping what a charge needs.
 */
export function applyMapping(mapping: Mapping, fileHeader: readonly string[], source: string): MappedFile | { problems: FileProblem[] } {
  const at = new Map(fileHeader.map((name, i) => [name.trim(), i]))
  const twice = new Set(fileHeader.map(name => name.trim()).filter((name, i, all) => name !== '' && all.indexOf(name) !== i))
  const problems: FileProblem[] = []
  const place = (column: string, of: string): number => {
    const found = at.get(column.trim())
    if (twice.has(column.trim()))
      problems.push({
        row: null,
        column,
        value: null,
        reason: `the file has two columns «${column}», and the mapping takes ${of} from one`,
        mend: 'Give one of the two another name in the file.',
      })
    if (found === undefined)
      problems.push({
        row: null,
        column,
        value: null,
        reason: `the file has no column «${column}», which the mapping takes ${of} from`,
        mend: `Choose another column under «Mapping» or export the file with it. The file has: ${fileHeader.slice(0, 30).join(', ')}.`,
      })
    return found ?? -1
  }
  const needs = (missing: boolean, column: string, what: string) => {
    if (missing)
      problems.push({
        row: null,
        column,
        value: null,
        reason: `the mapping does not say ${what}`,
        mend: 'Choose a column or a fixed value for it.',
      })
  }
  needs(!mapping.numbers.BilledCost, 'BilledCost', 'what a row costs')
  needs(!mapping.times.ChargePeriodStart, 'ChargePeriodStart', 'when a charge was')
  needs(!mapping.texts.BillingCurrency, 'BillingCurrency', 'in which currency a row is')

  type TextOf = (cells: readonly string[]) => string
  const wrongs: { column: string; value: string; reason: string; mend: string }[] = []
  const texts = new Map<string, TextOf>()
  for (const name of mappedTexts) {
    const from = mapping.texts[name]
    if (!from) continue
    if ('constant' in from) texts.set(name, () => from.constant)
    else {
      const i = place(from.column, name)
      texts.set(name, cells => {
        const own = (cells[i] ?? '').trim()
        return from.words && Object.hasOwn(from.words, own) ? from.words[own]! : own
      })
    }
  }
  const usual = (name: string, text: TextOf) => {
    if (!texts.has(name)) texts.set(name, text)
  }
  const provider: TextOf = cells => texts.get('ProviderName')!(cells) || source
  usual('ProviderName', () => source)
  usual('PublisherName', provider)
  usual('InvoiceIssuerName', provider)
  usual('BillingAccountId', provider)
  usual('BillingAccountName', provider)
  usual('ServiceCategory', () => 'Other')
  usual('ServiceName', provider)
  usual('ChargeCategory', () => 'Usage')
  usual('ChargeClass', () => '')
  usual('ChargeDescription', () => '')
  // a name without an id is its own id: the specification lets nothing be named that has none
  for (const [id, name] of [
    ['SubAccountId', 'SubAccountName'],
    ['ResourceId', 'ResourceName'],
    ['RegionId', 'RegionName'],
  ] as const) {
    if (!texts.has(id) && texts.has(name)) texts.set(id, texts.get(name)!)
  }
  usual('PricingCategory', cells => (['Usage', 'Purchase'].includes(texts.get('ChargeCategory')!(cells)) ? 'Standard' : ''))

  const numbers = new Map<string, TextOf>()
  const { decimal, thousands } = mapping
  const numberAt = (i: number, cells: readonly string[]): string | null => {
    const cell = cells[i] ?? ''
    const read = readNumber(cell, decimal, thousands)
    if (read === null)
      wrongs.push({
        column: fileHeader[i]!,
        value: cell,
        reason: `not a number with «${decimal}» before the decimals${thousands ? ` and «${thousands}» between thousands` : ''}`,
        mend: 'Choose how the file writes numbers under «Mapping», or mend the cell.',
      })
    return read
  }
  for (const name of mappedNumbers) {
    const from = mapping.numbers[name]
    if (!from) continue
    if ('constant' in from) {
      numbers.set(name, () => from.constant)
      continue
    }
    const i = place(from.column, name)
    const factorAt = from.timesColumn ? place(from.timesColumn, name) : null
    numbers.set(name, cells => {
      const own = numberAt(i, cells)
      if (own === null || own === '') return ''
      const factor = factorAt === null ? (from.times ?? null) : numberAt(factorAt, cells)
      if (factorAt !== null && !factor) return ''
      return factor ? decimalText(new Decimal(own).times(factor)) : own
    })
  }
  for (const cost of COSTS) if (!numbers.has(cost) && numbers.has('BilledCost')) numbers.set(cost, numbers.get('BilledCost')!)
  if (!numbers.has('PricingQuantity')) numbers.set('PricingQuantity', () => '')
  // a unit without a quantity, or a quantity on tax, would break the specification: both stay empty there
  const quantity = numbers.get('PricingQuantity')!
  const isTax: TextOf = cells => (texts.get('ChargeCategory')!(cells) === 'Tax' ? 'yes' : '')
  numbers.set('PricingQuantity', cells => (isTax(cells) ? '' : quantity(cells)))
  const unit = texts.get('PricingUnit') ?? (() => 'Units')
  texts.set('PricingUnit', cells => (numbers.get('PricingQuantity')!(cells) === '' ? '' : unit(cells) || 'Units'))

  const timeAt = (column: string, of: string): TextOf => {
    const i = place(column, of)
    return cells => {
      const cell = cells[i] ?? ''
      const read = readDate(cell, mapping.dateFormat)
      if (read === null)
        wrongs.push({
          column: fileHeader[i]!,
          value: cell,
          reason: `not a date written ${mapping.dateFormat}`,
          mend: 'Choose how the file writes dates under «Mapping», or mend the cell; rows that are no charges can be left out by what a column says.',
        })
      return read ?? ''
    }
  }
  const times = new Map<string, TextOf>()
  for (const name of mappedTimes) if (mapping.times[name]) times.set(name, timeAt(mapping.times[name].column, name))
  const start = times.get('ChargePeriodStart') ?? (() => '')
  const tags = Object.entries(mapping.tags).map(([key, column]) => ({ key, i: place(column, `the tag ${key}`) }))
  const passedOver = mapping.leaveOutRows.map(({ column, is }) => ({ i: place(column, 'rows to leave out'), is }))
  if (problems.length) return { problems }

  const header = [...texts.keys(), ...numbers.keys(), ...mappedTimes, ...(tags.length ? ['Tags'] : [])]
  const row = (cells: readonly string[], number: number): MappedRow => {
    if (passedOver.some(({ i, is }) => (cells[i] ?? '').trim() === is.trim())) return 'left out'
    if (cells.length !== fileHeader.length)
      return {
        problems: [
          {
            row: number,
            column: null,
            value: null,
            reason: `the row has ${cells.length} ${cells.length === 1 ? 'cell' : 'cells'} where the header names ${fileHeader.length}`,
            mend: 'Look for a number or text with the separator in it that is not in quotes, such as 1,234.50.',
          },
        ],
      }
    wrongs.length = 0
    const from = start(cells)
    const bill = times.get('BillingPeriodStart')?.(cells) ?? (from && `${from.slice(0, 7)}-01T00:00:00Z`)
    const values = [
      ...[...texts.values()].map(text => text(cells)),
      ...[...numbers.values()].map(text => text(cells)),
      from,
      times.get('ChargePeriodEnd')?.(cells) ?? (from && endAfter(from, mapping.lasts)),
      bill,
      times.get('BillingPeriodEnd')?.(cells) ?? (bill && `${monthEnd(bill.slice(0, 7))}T00:00:00Z`),
      ...(tags.length ? [tagText(tags, cells)] : []),
    ]
    // the same cell may be read for several columns: it is wrong once
    const told = new Map(wrongs.map(wrong => [`${wrong.column} ${wrong.reason}`, wrong]))
    return told.size ? { problems: [...told.values()].map(wrong => ({ row: number, ...wrong })) } : { texts: values }
  }
  return { header, row }
}

function tagText(tags: { key: string; i: number }[], cells: readonly string[]): string {
  const filled = tags.flatMap(({ key, i }) => {
    const value = (cells[i] ?? '').trim()
    return value === '' ? [] : [[key, value] as const]
  })
  return filled.length ? JSON.stringify(Object.fromEntries(filled)) : ''
}

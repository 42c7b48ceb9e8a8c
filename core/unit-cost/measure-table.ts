import { LARGEST_AMOUNT, ONE, parseScaled, scaledText } from '../money/scaled'
import { namedObject } from '../text/named'
import type { TextTable, WrongLine } from '../text/text-table'
import { grainOf, type BusinessMeasure } from './business-measure'

/** Columns of a table of business measures; `tree` only where cost centres are of a further tree. */
const COLUMNS = ['measure', 'unit', 'date', 'cost centre', 'value'] as const
const TREE = 'tree'

const LARGEST = BigInt(LARGEST_AMOUNT) * ONE

/** Whether the heads of a table are those of business measures. */
export const isMeasureTable = (heads: readonly string[]): boolean => COLUMNS.every(column => heads.some(head => head.trim() === column))

/** Why a text is no value of a measure; null where it is one: a number from 0 on. */
export function wrongValue(text: string): string | null {
  const read = parseScaled(text)
  if (!read) return `«${text}» is no number`
  if (read.value < 0n) return `${text} is below zero`
  if (read.value > LARGEST) return `${text} is above ${scaledText(LARGEST)}`
  return read.rounded ? `${text} has more than 15 decimals` : null
}

/** Measures as a table that reads back as the same: by measure, cost centre and date. */
export function measureTable(measures: readonly BusinessMeasure[]): TextTable {
  const hasTree = measures.some(({ tree }) => tree !== null)
  return {
    heads: [...COLUMNS.slice(0, 2), ...(hasTree ? [TREE] : []), ...COLUMNS.slice(2)],
    rows: measures.flatMap(({ name, unit, tree, values }) =>
      values.map(({ centre, date, value }) => [name, unit, ...(hasTree ? [tree ?? ''] : []), date, centre, value]),
    ),
  }
}

/**
 * Reads a table of business measures; rows of several measures may be mixed. Text, negative numbers and rows that say something twice are
 * refused, with their lines.
 * @returns nothing of it where a line is wrong.
 */
export function readMeasureTable({ heads, rows }: TextTable): { measures: BusinessMeasure[]; wrong: WrongLine[] } {
  const names = heads.map(head => head.trim())
  const wrong: WrongLine[] = []
  const measures = namedObject<BusinessMeasure>()
  const lineOf = new Map<string, number>()
  rows.forEach((cells, at) => {
    if (cells.every(cell => cell.trim() === '')) return
    const line = at + 2
    const cell = (column: string) => cells[names.indexOf(column)]?.trim() ?? ''
    const say = (why: string) => wrong.push({ line, why })
    const [name, unit, date, centre, value] = COLUMNS.map(cell) as [string, string, string, string, string]
    const empty = COLUMNS.find(column => cell(column) === '')
    if (empty) return say(`it has no ${empty}`)
    const grain = grainOf(date)
    if (!grain) return say(`«${date}» is no date: write a day like 2026-10-05, or a month like 2026-10`)
    const tree = cell(TREE) || null
    const measure = (measures[name] ??= { name, unit, grain, tree, values: [] })
    if (measure.unit !== unit) return say(`${name} is counted in «${measure.unit}» above, and in «${unit}» here`)
    if (measure.grain !== grain) return say(`${name} is told by ${measure.grain} above, and by ${grain} here`)
    if (measure.tree !== tree) return say(`${name} is of another tree above`)
    const why = wrongValue(value)
    if (why) return say(`${why}: write what was counted, from 0 on`)
    const key = JSON.stringify([name, centre, date])
    const first = lineOf.get(key)
    if (first) return say(`${name} of ${centre} for ${date} is on line ${first} already`)
    lineOf.set(key, line)
    measure.values.push({ centre, date, value })
  })
  return { measures: wrong.length ? [] : Object.values(measures), wrong }
}

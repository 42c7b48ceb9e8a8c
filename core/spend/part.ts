import { dictionaryNames, type DictionaryName } from '../focus/star'
import { columnCoding, placedColumn } from './coded-column'
import { Cube } from './cube'
import { centreDimension, columnPlace, CONTAINER_COLUMN, COST_CENTRE_NAME } from './dimension'
import { rowCodes, type Coding, type SegmentOf } from './layers'
import type { SpendReference } from './reference'
import { finishSegment, measureNames, type Beyond, type KeyColumn, type MeasureColumn, type MeasureName, type Segment } from './segment'

/** Where a segment of a part comes from: the segment, its place among those of its billing period, and which of its rows are here. */
export type Origin = { of: SegmentOf; place: number; places: number; rows: Uint32Array }

/** Some charges of a cube as a cube of their own. */
export type CubePart = { cube: Cube; origins: ReadonlyMap<Segment, Origin> }

/**
 * Takes some charges out of a cube. The part knows nothing of the others: no entry, tag, source, currency or day that only they have.
 * Whose a charge is stays as the whole says. The part is as the whole is now: when that changes, it is to be made anew.
 * @param rowsOf which rows of a segment belong to it, in order.
 */
export function partOf(whole: Cube, rowsOf: (of: SegmentOf) => Uint32Array): CubePart {
  const cube = new Cube()
  const origins = new Map<Segment, Origin>()
  const used = Object.fromEntries(dictionaryNames.map(name => [name, new Set<number>()])) as Record<DictionaryName, Set<number>>
  for (const period of whole.periods.values()) {
    const segments: Segment[] = []
    period.segments.forEach((segment, place) => {
      const of = { segment, billingMonth: period.billingPeriodStart.slice(0, 7), source: period.source }
      const rows = rowsOf(of)
      if (!rows.length) return
      const own = someRows(segment, rows, code => cube.currencyCode(whole.currencies[code]!))
      for (const name of dictionaryNames) for (const id of own.keys[name].ids) used[name].add(id)
      origins.set(own, { of, place, places: period.segments.length, rows })
      segments.push(own)
    })
    if (segments.length) cube.setPeriod({ ...period, segments })
  }
  for (const name of dictionaryNames) {
    const entries = whole.entries[name]
    // every place is filled, so that the list stays one
    for (let id = 0; id < entries.length; id++) cube.entries[name][id] = used[name].has(id) ? entries[id] : undefined
  }
  cube.setReference(referenceFor(cube, whole.reference))
  cube.setCentres((_, tree, shows) => {
    if (shows === 'rule' || shows === 'rule words') return null // rules look at what a part does not know
    return drawnFrom(whole, shows === 'name' ? COST_CENTRE_NAME : centreDimension(tree), origins)
  })
  return { cube, origins }
}

/** The accounts and containers of which a cube has charges, with those above; names of the others are no dimension's values. */
function referenceFor(cube: Cube, reference: SpendReference): SpendReference {
  const account = columnPlace('subAccount', 'SubAccountId')
  const accounts = new Set(cube.entries.subAccount.map(entry => entry?.[account]))
  const paths = cube.entries.others.map((_, id) => `${String(cube.others(id)[CONTAINER_COLUMN] ?? '')}/`)
  const some = <T>(record: Record<string, T>, has: (name: string) => boolean) =>
    Object.fromEntries(Object.entries(record).filter(([name]) => has(name)))
  return {
    ...reference,
    accounts: some(reference.accounts, name => accounts.has(name)),
    containerTags: some(reference.containerTags, name => paths.some(path => path.startsWith(`${name}/`))),
  }
}

/** Whose charges are, read from the whole: a rule may look at what a part does not know. */
function drawnFrom(whole: Cube, dimension: string, origins: CubePart['origins']): Coding {
  const { values, layers } = whole.coding(dimension)
  return columnCoding(values, ({ segment }) => {
    const { of, rows } = origins.get(segment)!
    const codeOf = rowCodes(layers, of)
    return placedColumn(rows.length, row => codeOf(rows[row]!), values.length)
  })
}

function someRows(segment: Segment, rows: Uint32Array, currencyOf: (code: number) => number): Segment {
  const { time, currency, absent, keys, measures } = segment
  const times = someKeys({ codes: time.codes, ids: Int32Array.from(time.starts, (_, place) => place) }, rows)
  return finishSegment({
    rows: rows.length,
    time: {
      codes: times.codes,
      starts: Float64Array.from(times.ids, place => time.starts[place]!),
      ends: Float64Array.from(times.ids, place => time.ends[place]!),
    },
    currency: Uint8Array.from(rows, row => currencyOf(currency[row]!)),
    absent: Uint8Array.from(rows, row => absent[row]!),
    keys: Object.fromEntries(dictionaryNames.map(name => [name, someKeys(keys[name], rows)])) as Segment['keys'],
    measures: Object.fromEntries(measureNames.map(name => [name, someAmounts(measures[name], rows)])) as Record<MeasureName, MeasureColumn>,
  })
}

function someKeys({ codes, ids }: KeyColumn, rows: Uint32Array): KeyColumn {
  const placeOf = new Int32Array(ids.length).fill(-1)
  const used: number[] = []
  const own = new Uint16Array(rows.length)
  for (let i = 0; i < rows.length; i++) {
    const code = codes[rows[i]!]!
    if (placeOf[code]! < 0) placeOf[code] = used.push(ids[code]!) - 1
    own[i] = placeOf[code]!
  }
  return { codes: own, ids: Int32Array.from(used) }
}

function someAmounts({ high, low, largest, beyond }: MeasureColumn, rows: Uint32Array): MeasureColumn {
  const own: Beyond = { rows: [], parts: [] }
  if (beyond) {
    const partOfRow = new Map(beyond.rows.map((row, place) => [row, beyond.parts[place]!]))
    rows.forEach((row, i) => {
      const part = partOfRow.get(row)
      if (part === undefined) return
      own.rows.push(i)
      own.parts.push(part)
    })
  }
  return {
    high: Float64Array.from(rows, row => high[row]!),
    low: Int32Array.from(rows, row => low[row]!),
    largest, // of the whole: a bound, as good for a part
    beyond: own.rows.length ? own : null,
  }
}

import { scaledText } from '../money/scaled'
import type { CodeColumn } from './combinations'
import { kindColumn, splitColumns, stepColumn, type Groups } from './groups'
import type { PackedColumn, PackedRows } from './packed'
import { sumOf } from './rank'

/** Rows of groups in an order. */
export function packGroups(groups: Groups, order: Uint32Array): PackedRows {
  const [first, less] = groups.sums
  const text = less ? (group: number) => scaledText(sumOf(groups, group)) : (group: number) => first!.text(groups.cells[group]!)
  const column = <T>({ codes, size }: CodeColumn, valueOf: (code: number) => T): PackedColumn<T> => {
    const values: T[] = []
    const places = new Int32Array(size)
    const found = new Int32Array(order.length)
    for (let row = 0; row < order.length; row++) {
      const code = codes[order[row]!]!
      if (places[code] === 0) places[code] = values.push(valueOf(code))
      found[row] = places[code]! - 1
    }
    return { values, codes: found }
  }
  const texts = new Array<string>(order.length)
  for (let row = 0; row < order.length; row++) texts[row] = text(order[row]!)
  const { starts } = groups
  return {
    count: order.length,
    amounts: texts.join(' '),
    currencies: column(kindColumn(groups), groups.denomination),
    splits: splitColumns(groups).map((codes, split) => column(codes, code => groups.values[split]![code]!)),
    starts: starts && order.length ? column(stepColumn(groups), step => starts[step]!) : null,
  }
}

import { parquetWriteBuffer } from 'hyparquet-writer'
import { scaled } from '../../../core/money/scaled'
import type { TableWriter } from './table-writer'

const DECIMALS = 15

/** Parquet: amounts and shares as decimals of 38 digits, 15 after the point, which lose nothing; texts as UTF-8. The total is not a row. */
export const parquetTable: TableWriter = {
  format: 'parquet',
  async write({ heads, rows }) {
    const names = uniqueNames(heads.map(head => head.name))
    return new Uint8Array(
      parquetWriteBuffer({
        schema: [
          { name: 'root', num_children: heads.length },
          ...heads.map((head, i) =>
            head.kind === 'text'
              ? { name: names[i]!, type: 'BYTE_ARRAY' as const, converted_type: 'UTF8' as const, repetition_type: 'OPTIONAL' as const }
              : {
                  name: names[i]!,
                  type: 'FIXED_LEN_BYTE_ARRAY' as const,
                  type_length: 16,
                  converted_type: 'DECIMAL' as const,
                  scale: DECIMALS,
                  precision: 38,
                  repetition_type: 'OPTIONAL' as const,
                },
          ),
        ],
        columnData: heads.map((head, i) => ({
          name: names[i]!,
          data: rows.map(row => (row[i] === null || row[i] === undefined ? null : head.kind === 'text' ? row[i] : scaled(row[i]!))),
        })),
        statistics: false,
      }),
    )
  },
}

/** Column names have to differ: a second one of the same name gets a number. */
function uniqueNames(names: string[]): string[] {
  const seen = new Map<string, number>()
  return names.map(name => {
    const count = (seen.get(name) ?? 0) + 1
    seen.set(name, count)
    return count === 1 ? name : `${name} (${count})`
  })
}

import type { TableWriter } from './table-writer'

/** JSON: one object a row, amounts as texts so that no digit is lost. */
export const jsonTable: TableWriter = {
  format: 'json',
  async write({ title, facts, heads, rows, total }) {
    const object = (cells: (string | null)[]) => Object.fromEntries(cells.map((cell, i) => [heads[i]!.name, cell]))
    return new TextEncoder().encode(
      JSON.stringify({ title, facts, columns: heads, rows: rows.map(object), total: total && object(total) }, null, 1) + '\n',
    )
  },
}

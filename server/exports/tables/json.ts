import { uniqueNames, type TableWriter } from './table-writer'

/** JSON: one object a row, amounts as texts so that no digit is lost. */
export const jsonTable: TableWriter = {
  async write({ title, facts, heads, rows, total }) {
    const names = uniqueNames(heads.map(({ name }) => name))
    const object = (cells: (string | null)[]) => Object.fromEntries(cells.map((cell, i) => [names[i], cell]))
    return new TextEncoder().encode(
      JSON.stringify(
        {
          title,
          facts: Object.fromEntries(facts.map(({ name, text }) => [name, text])),
          columns: heads.map(({ kind }, i) => ({ name: names[i], kind })),
          rows: rows.map(object),
          total: total && object(total),
        },
        null,
        1,
      ) + '\n',
    )
  },
}

/** A table of texts, as a CSV has it: the heads of its columns, and its rows. */
export type TextTable = { heads: string[]; rows: string[][] }

/** What is wrong in a table; the line counts the heads, as an editor does. */
export type WrongLine = { line: number; why: string }

export type NamedRow<Name extends string> = { line: number; cell: (name: Name) => string; raw: (name: Name) => string }

/**
 * The cells of each row by the names of their columns, trimmed or (`raw`) as they are, with the number of their line; rows without any cell
 * are passed over.
 * @param known columns there may be; the first of them there have to be. @param needed so many of them.
 * @returns no rows where the columns are wrong.
 */
export function namedRows<Name extends string>(
  { heads, rows }: TextTable,
  known: readonly Name[],
  needed: number,
): { rows: NamedRow<Name>[]; wrong: WrongLine[] } {
  const names = heads.map(head => head.trim())
  const wrong: WrongLine[] = []
  for (const name of known.slice(0, needed)) if (!names.includes(name)) wrong.push({ line: 1, why: `there is no column «${name}»` })
  names.forEach((name, place) => {
    if (!known.includes(name as Name)) wrong.push({ line: 1, why: `there is no use for a column «${name}»` })
    else if (names.indexOf(name) !== place) wrong.push({ line: 1, why: `the column «${name}» appears twice` })
  })
  if (wrong.length) return { rows: [], wrong }
  const found = rows.flatMap((cells, at) => {
    if (cells.every(cell => cell.trim() === '')) return []
    if (cells.length > names.length)
      wrong.push({ line: at + 2, why: `it has ${cells.length} cells, and the table ${names.length} columns` })
    const raw = (name: Name) => cells[names.indexOf(name)] ?? ''
    return [{ line: at + 2, raw, cell: (name: Name) => raw(name).trim() }]
  })
  return { rows: found, wrong }
}

/** What the total of a column is: the sum of its rows, a change between the totals of two other columns, or nothing that rows give. */
export type ColumnTotal = 'sum' | { change: { from: number; to: number } }
export type FileHead = { name: string; kind: 'text' | 'amount' | 'share' | 'time'; total?: ColumnTotal }
/** What is to be known beside the figures: what they are of, what they are compared with, and what they lack. */
export type FileFact = { name: string; text: string }
/** A table as it goes into a file: heads with what they hold, and cells as texts (amounts with every digit, null for nothing). */
export type FileTable = { title: string; facts: FileFact[]; heads: FileHead[]; rows: (string | null)[][]; total: (string | null)[] | null }

/** The facts as the lines of a text, for what cannot hold them itself. */
export const factLines = ({ title, facts }: Pick<FileTable, 'title' | 'facts'>): string =>
  [title, '', ...facts.map(({ name, text }) => `${name}: ${text}`)].join('\r\n') + '\r\n'

/** What a worksheet holds at most, its heading aside. */
export const MOST_SHEET_ROWS = 1_048_570

/** Writes a table in one format. */
export type TableWriter = { write: (table: FileTable) => Promise<Uint8Array> }

/** Column names have to differ: a second one of the same name gets a number. */
export function uniqueNames(names: string[]): string[] {
  const seen = new Map<string, number>()
  return names.map(name => {
    const count = (seen.get(name) ?? 0) + 1
    seen.set(name, count)
    return count === 1 ? name : `${name} (${count})`
  })
}

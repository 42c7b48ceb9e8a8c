/** A table as it goes into a file: heads with what they hold, and cells as texts (amounts with every digit, null for nothing). */
export type FileTable = { title: string, facts: string[], heads: { name: string, kind: 'text' | 'amount' | 'share' }[], rows: Iterable<(string | null)[]>, total: (string | null)[] | null }

/** One file format for tables. */
export type TableWriter = { format: 'csv' | 'xlsx' | 'parquet' | 'json', mime: string, write: (table: FileTable) => Promise<Uint8Array> }

import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import type { FileReader } from './reader'

/** JSON objects, one to a line; the first says which columns there are. */
export const jsonLinesReader: FileReader = {
  format: 'JSON lines',
  recognises: head => head[0] === '{'.charCodeAt(0),
  async *read(path, target) {
    let header: string[] | null = null
    for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
      if (!line.trim()) continue
      const row = JSON.parse(line) as Record<string, unknown>
      if (!header && !target.begin((header = Object.keys(row)))) return
      target.texts(header.map(name => (row[name] === null || row[name] === undefined ? '' : String(row[name]))))
    }
    yield (await stat(path)).size
  },
}

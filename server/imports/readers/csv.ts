import { createReadStream, openSync, readSync, closeSync } from 'node:fs'
import type { Readable} from 'node:stream';
import { Transform } from 'node:stream'
import { createGunzip } from 'node:zlib'
import Papa from 'papaparse'
import type { FileProblem } from '../../../core/focus/problem'

/** What a reader hands on: records in order, the header first. */
export type RecordBatch = { records: string[][], bytesDone: number }

/** A file that cannot be read to its end. */
export class UnreadableFile extends Error {
  constructor(readonly problem: FileProblem) {
    super(problem.reason)
  }
}

const unreadable = (row: number | null, reason: string, mend: string) => new UnreadableFile({ row, column: null, value: null, reason, mend })

/** Whether the file is compressed, by its first two bytes. */
function isGzip(path: string): boolean {
  const head = Buffer.alloc(2)
  const file = openSync(path, 'r')
  try {
    return readSync(file, head, 0, 2, 0) === 2 && head[0] === 0x1F && head[1] === 0x8B
  }
  finally {
    closeSync(file)
  }
}

/**
 * Reads a CSV file (RFC 4180; UTF-8, with or without a byte order mark; plain or gzip) as a stream of batches of records.
 * @throws UnreadableFile when the bytes are not such a file, saying where reading stopped.
 */
export async function* readCsv(path: string): AsyncGenerator<RecordBatch> {
  let bytesDone = 0
  const bytes = createReadStream(path, { highWaterMark: 1 << 20 })
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytesDone += chunk.length
      done(null, chunk)
    },
  })
  const raw = bytes.pipe(counted)
  const plain: Readable = isGzip(path) ? raw.pipe(createGunzip({ chunkSize: 1 << 20 })) : raw
  bytes.on('error', error => plain.destroy(error))

  const decoder = new TextDecoder('utf-8', { fatal: true })
  const parser = new RecordParser()
  try {
    for await (const chunk of plain) {
      const records = parser.push(decode(decoder, chunk as Buffer, true, parser.count))
      if (records.length) yield { records, bytesDone }
    }
    const records = [...parser.push(decode(decoder, undefined, false, parser.count)), ...parser.end()]
    yield { records, bytesDone }
  }
  catch (error) {
    if (error instanceof UnreadableFile) throw error
    const code = (error as NodeJS.ErrnoException).code ?? ''
    if (code.startsWith('Z_')) throw unreadable(null, 'the compressed file is damaged or cut short', 'Copy or export it again.')
    throw error
  }
  finally {
    bytes.destroy()
  }
}

function decode(decoder: TextDecoder, chunk: Buffer | undefined, stream: boolean, records: number): string {
  try {
    return decoder.decode(chunk, { stream })
  }
  catch {
    throw unreadable(null, `after record ${Math.max(0, records - 1)} there are bytes that are not UTF-8`, 'Save the file in the encoding UTF-8.')
  }
}

/** Cuts text that arrives in pieces into whole records; a record that is not complete waits for the next piece. */
class RecordParser {
  #waiting = ''
  #newline: '\n' | '\r\n' | '\r' | null = null
  count = 0

  push(text: string): string[][] {
    const whole = this.#waiting + text
    this.#newline ??= lineBreakOf(whole)
    const cut = this.#newline ? lastRecordEnd(whole, this.#newline) : 0
    this.#waiting = whole.slice(cut)
    return this.#parse(whole.slice(0, cut))
  }

  end(): string[][] {
    return this.#parse(this.#waiting)
  }

  #parse(text: string): string[][] {
    if (text === '') return []
    const { data, errors } = Papa.parse<string[]>(text, { delimiter: ',', newline: this.#newline ?? '\n', skipEmptyLines: true })
    const wrong = errors[0]
    if (wrong) {
      throw unreadable(this.count + (wrong.row ?? 0), wrong.code === 'MissingQuotes' ? 'a quoted text is not closed' : 'a quote stands where none may be',
        'Put the whole text in quotes and write each quote inside it twice.')
    }
    this.count += data.length
    return data
  }
}

function lineBreakOf(text: string): '\n' | '\r\n' | '\r' | null {
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const c = text[i]
    if (c === '"') quoted = !quoted
    else if (!quoted && c === '\n') return '\n'
    else if (!quoted && c === '\r') return i + 1 === text.length ? null : text[i + 1] === '\n' ? '\r\n' : '\r'
  }
  return null
}

/** Just behind the last line break that is not inside quotes: an even number of quotes lies before it. */
function lastRecordEnd(text: string, newline: string): number {
  let quotes = 0
  for (let i = text.indexOf('"'); i >= 0; i = text.indexOf('"', i + 1)) quotes++
  // Walk back from the end, taking quotes off, until a line break has an even number before it.
  let behind = 0
  for (let i = text.length - 1; i >= 0; i--) {
    if (text[i] === '"') behind++
    else if (text.startsWith(newline, i) && (quotes - behind) % 2 === 0) return i + newline.length
  }
  return 0
}

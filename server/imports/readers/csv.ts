import { createReadStream } from 'node:fs'
import type { Readable } from 'node:stream'
import { Transform } from 'node:stream'
import { createGunzip } from 'node:zlib'
import { CsvScanner, LARGEST_RECORD_MB } from './csv-scanner'
import { unreadable, UnreadableFile, type FileReader, type ReadOptions, type RowTarget } from './reader'

const GZIP = [0x1f, 0x8b]
/** A file of charges packs to a twentieth or so; what unpacks to this many times its size, and is not small, is none. */
const LARGEST_RATIO = 200
/** What is not larger than one row may be is small. */
const SMALL_BYTES = LARGEST_RECORD_MB * 1024 * 1024
const tooDense = unreadable(
  null,
  `the compressed file unpacks to more than ${LARGEST_RATIO} times its size`,
  'Export it again: a file of charges does not do that.',
)
const utf8 = new TextDecoder('utf-8', { fatal: true })

/**
 * CSV (RFC 4180; UTF-8, with or without a byte order mark; plain or gzip), as a stream.
 * @throws UnreadableFile when the bytes are not such a file, saying where reading stopped.
 */
export const csvReader: FileReader = { format: 'CSV', recognises: () => true, read: readCsv }

async function* readCsv(
  path: string,
  target: RowTarget,
  { delimiter = ',', encoding = 'utf-8', skipLines = 0 }: ReadOptions,
): AsyncGenerator<number> {
  let bytesDone = 0
  const bytes = createReadStream(path, { highWaterMark: 1 << 20 })
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytesDone += chunk.length
      done(null, chunk)
    },
  })
  const raw = bytes.pipe(counted)
  const packed = await startsWith(path, GZIP)
  const plain: Readable = packed ? raw.pipe(createGunzip({ chunkSize: 1 << 20 })) : raw
  bytes.on('error', error => plain.destroy(error))
  const scanner: CsvScanner = new CsvScanner(target, delimiter.charCodeAt(0), cell => decodeName(cell), skipLines)
  // other encodings are turned into UTF-8 first: the scanner knows one
  const other = encoding === 'utf-8' ? null : new TextDecoder(encoding)
  try {
    let first = true
    let unpacked = 0
    for await (const chunk of plain) {
      const piece = chunk as Buffer
      unpacked += piece.length
      if (packed && unpacked > SMALL_BYTES && unpacked > bytesDone * LARGEST_RATIO) throw tooDense
      if (first && encoding === 'utf-8') refuseUtf16(piece)
      first = false
      scanner.push(other ? Buffer.from(other.decode(piece, { stream: true })) : piece)
      yield bytesDone
      if (scanner.stopped) return
    }
    if (other) scanner.push(Buffer.from(other.decode()))
    scanner.end()
    yield bytesDone
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    const code = (error as NodeJS.ErrnoException).code ?? ''
    if (code.startsWith('Z_')) throw unreadable(null, 'the compressed file is damaged or cut short', 'Copy or export it again.')
    throw error
  } finally {
    bytes.destroy()
  }
}

async function startsWith(path: string, head: number[]): Promise<boolean> {
  for await (const chunk of createReadStream(path, { start: 0, end: head.length - 1 }))
    return head.every((byte, i) => (chunk as Buffer)[i] === byte)
  return false
}

function refuseUtf16(piece: Buffer): void {
  if ((piece[0] === 0xff && piece[1] === 0xfe) || (piece[0] === 0xfe && piece[1] === 0xff))
    throw unreadable(null, 'the file is UTF-16, not UTF-8', 'Save the file in the encoding UTF-8.')
}

function decodeName(bytes: Uint8Array): string {
  try {
    return utf8.decode(bytes)
  } catch {
    throw unreadable(null, 'the header has bytes that are not UTF-8', 'Save the file in the encoding UTF-8.')
  }
}

/** Text of UTF-8 bytes; null when they are not. */
export function decodeUtf8(bytes: Uint8Array): string | null {
  try {
    return utf8.decode(bytes)
  } catch {
    return null
  }
}

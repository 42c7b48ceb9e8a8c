import Papa from 'papaparse'
import { focusColumns } from '../../core/focus/columns'

/** What the beginning of a file tells about it. */
export type Peek =
  | { kind: 'charges'; provider: string | null; billingPeriodStart: string | null }
  | { kind: 'foreign charges'; text: string }
  | { kind: 'rate card' | 'rate card table' | 'cost centres' | 'account tree' | 'exchange rates' | 'invoices'; text: string }
  | { kind: 'unknown'; reason: string }

const HEAD_BYTES = 256 * 1024

async function startsWith(file: Blob, bytes: number[]): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, bytes.length).arrayBuffer())
  return bytes.every((byte, i) => head[i] === byte)
}

/** The first characters of a file, unpacked where it is compressed. */
async function headText(file: Blob): Promise<string> {
  if (!(await startsWith(file, [0x1f, 0x8b]))) return file.slice(0, HEAD_BYTES).text()
  const reader = file.stream().pipeThrough(new DecompressionStream('gzip')).getReader()
  const decoder = new TextDecoder()
  let text = ''
  try {
    while (text.length < HEAD_BYTES) {
      const { value, done } = await reader.read()
      if (done) break
      text += decoder.decode(value, { stream: true })
    }
  } catch {
    // damaged: the server says where
  }
  void reader.cancel().catch(() => {})
  return text
}

/**
 * Looks into a dropped file: charges with their provider and billing period, charges in a provider's own columns, or one of the product's
 * own files.
 */
export async function peek(file: File): Promise<Peek> {
  if (/\.json$/i.test(file.name)) {
    const text = await file.text()
    try {
      const value = JSON.parse(text) as Record<string, unknown>
      if (Array.isArray(value.prices)) return { kind: 'rate card', text }
      if (value.plan) return { kind: 'cost centres', text }
      if (value.accounts || value.containerTags) return { kind: 'account tree', text }
      return {
        kind: 'unknown',
        reason:
          'none of the JSON files that are known: a rate card (with prices), cost centres (with a plan), an account tree (with accounts)',
      }
    } catch {
      return { kind: 'unknown', reason: 'not a JSON document' }
    }
  }
  // Parquet: the server reads it
  if (await startsWith(file, [0x50, 0x41, 0x52, 0x31])) return { kind: 'charges', provider: null, billingPeriodStart: null }
  const text = await headText(file)
  const { data, meta } = Papa.parse<Record<string, string>>(text, { header: true, preview: 1 })
  const fields = new Set(meta.fields)
  const has = (...names: string[]) => names.every(name => fields.has(name))
  if (has('row', 'valid from')) return { kind: 'rate card table', text: await file.text() }
  if (has('from', 'to', 'valid from', 'rate')) return { kind: 'exchange rates', text: await file.text() }
  if (has('issuer', 'invoice', 'month', 'total')) return { kind: 'invoices', text: await file.text() }
  const mandatory = focusColumns.filter(column => column.presence === 'mandatory')
  // a file that has most of the mandatory columns means to be FOCUS: what it lacks is told; one that has nearly none is another's
  const known = mandatory.filter(column => fields.has(column.name)).length
  if (known * 3 < mandatory.length && /[\r\n]/.test(text) && !text.includes('\0')) return { kind: 'foreign charges', text }
  return { kind: 'charges', provider: data[0]?.ProviderName || null, billingPeriodStart: data[0]?.BillingPeriodStart?.slice(0, 10) || null }
}

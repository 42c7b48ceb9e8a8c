import Papa from 'papaparse'
import { isCentreTable } from '../../core/allocation/tables/centre-table'
import { isRuleTable } from '../../core/allocation/tables/rule-table'
import { focusColumns } from '../../core/focus/columns'
import { isMeasurementTable } from '../../core/measured/measurement-reader'
import { isLookupBase } from '../../core/spend/dimensions'
import { isLookupTable } from '../../core/spend/lookup-table'
import { isMeasureTable } from '../../core/unit-cost/measure-table'

/** What the beginning of a file tells about it. */
export type Peek =
  | { kind: 'charges'; provider: string | null; billingPeriodStart: string | null }
  | { kind: 'foreign charges'; text: string }
  | { kind: 'measurements' }
  | {
      kind:
        | 'rate card'
        | 'rate card table'
        | 'cost centres'
        | 'cost centre table'
        | 'rule table'
        | 'account tree'
        | 'exchange rates'
        | 'invoices'
        | 'lookup'
        | 'measures'
      text: string
    }
  | { kind: 'unknown'; reason: string }

/** What the name of a lookup's file begins with. */
const IS_LOOKUP = /^lookup[-_ ]/i
/** A file's name as that of a lookup. */
export const lookupFileName = (name: string): string => (IS_LOOKUP.test(name) || /\.json$/i.test(name) ? name : `lookup-${name}`)

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
      if (Array.isArray(value.entries) && value.by) return { kind: 'lookup', text }
      if (Array.isArray(value.measures)) return { kind: 'measures', text }
      if (value.accounts || value.containerTags) return { kind: 'account tree', text }
      return {
        kind: 'unknown',
        reason:
          'none of the JSON files that are known: a rate card (with prices), cost centres (with a plan), an account tree (with accounts), a lookup (with entries), business measures (with measures)',
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
  if (isCentreTable(meta.fields ?? [])) return { kind: 'cost centre table', text: await file.text() }
  if (isRuleTable(meta.fields ?? [])) return { kind: 'rule table', text: await file.text() }
  if (isMeasurementTable(meta.fields ?? [])) return { kind: 'measurements' }
  if (isMeasureTable(meta.fields ?? [])) return { kind: 'measures', text: await file.text() }
  // any bill may begin with a column that a lookup goes by: its name says that it is one
  if (IS_LOOKUP.test(file.name) && isLookupTable(meta.fields ?? [], isLookupBase)) return { kind: 'lookup', text: await file.text() }
  const mandatory = focusColumns.filter(column => column.presence === 'mandatory')
  // a file that has most of the mandatory columns means to be FOCUS: what it lacks is told; one that has nearly none is another's
  const known = mandatory.filter(column => fields.has(column.name)).length
  if (known * 3 < mandatory.length && /[\r\n]/.test(text) && !text.includes('\0')) return { kind: 'foreign charges', text }
  return { kind: 'charges', provider: data[0]?.ProviderName || null, billingPeriodStart: data[0]?.BillingPeriodStart?.slice(0, 10) || null }
}

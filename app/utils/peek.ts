import Papa from 'papaparse'

/** What the beginning of a file tells about it. */
export type Peek =
  | { kind: 'charges', provider: string | null, billingPeriodStart: string | null }
  | { kind: 'rate card' | 'rate card table' | 'cost centres', text: string }
  | { kind: 'unknown', reason: string }

const HEAD_BYTES = 256 * 1024

async function isGzip(file: Blob): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer())
  return head[0] === 0x1F && head[1] === 0x8B
}

/** The first characters of a file, unpacked where it is compressed. */
async function headText(file: Blob): Promise<string> {
  if (!await isGzip(file)) return file.slice(0, HEAD_BYTES).text()
  const reader = file.stream().pipeThrough(new DecompressionStream('gzip')).getReader()
  const decoder = new TextDecoder()
  let text = ''
  try {
    while (text.length < HEAD_BYTES) {
      const { value, done } = await reader.read()
      if (done) break
      text += decoder.decode(value, { stream: true })
    }
  }
  catch {
    // damaged: the server says where
  }
  void reader.cancel().catch(() => {})
  return text
}

/** Looks into a dropped file: charges with their provider and billing period, or one of the product's own JSON files. */
export async function peek(file: File): Promise<Peek> {
  if (/\.json$/i.test(file.name)) {
    const text = await file.text()
    try {
      const value = JSON.parse(text) as Record<string, unknown>
      if (Array.isArray(value.prices)) return { kind: 'rate card', text }
      if (value.plan) return { kind: 'cost centres', text }
      return { kind: 'unknown', reason: 'neither a rate card (with prices) nor cost centres (with a plan)' }
    }
    catch {
      return { kind: 'unknown', reason: 'not a JSON document' }
    }
  }
  const { data } = Papa.parse<Record<string, string>>(await headText(file), { header: true, preview: 1 })
  if (data[0] && 'row' in data[0] && 'valid from' in data[0]) return { kind: 'rate card table', text: await file.text() }
  return { kind: 'charges', provider: data[0]?.ProviderName || null, billingPeriodStart: data[0]?.BillingPeriodStart?.slice(0, 10) || null }
}

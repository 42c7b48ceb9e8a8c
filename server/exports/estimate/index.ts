import type { Writer, Written } from './writer'

/** Everything that an estimate leaves as; a writer is loaded when it is asked for, since it may bring a large library. */
export const writers: Record<Written, () => Promise<Writer>> = {
  csv: async () => (await import('./csv')).csv,
  xlsx: async () => (await import('./xlsx')).xlsx,
  pdf: async () => (await import('./pdf')).pdf,
  document: async () => (await import('./document')).document,
}

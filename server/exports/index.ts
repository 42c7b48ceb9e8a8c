import type { ExportFormat } from '../../shared/contracts/estimates'
import type { Writer } from './writer'

/** Every kind of file that an estimate leaves as; a writer is loaded when it is asked for, since it may bring a large library. */
export const writers: Record<ExportFormat, () => Promise<Writer>> = {
  csv: async () => (await import('./csv')).csv,
  xlsx: async () => (await import('./xlsx')).xlsx,
  pdf: async () => (await import('./pdf')).pdf,
}

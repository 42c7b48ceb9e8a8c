import { csv } from './csv'
import { pdf } from './pdf'
import type { Writer } from './writer'
import { xlsx } from './xlsx'

/** Every kind of file that an estimate leaves as. */
export const writers: readonly Writer[] = [csv, xlsx, pdf]

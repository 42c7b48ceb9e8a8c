import Papa from 'papaparse'
import type { TableWriter } from './table-writer'

/** Texts between tabs. */
export const tsvTable: TableWriter = {
  async write({ heads, rows }) {
    return new TextEncoder().encode(Papa.unparse([heads.map(({ name }) => name), ...rows], { delimiter: '\t', newline: '\n' }) + '\n')
  },
}

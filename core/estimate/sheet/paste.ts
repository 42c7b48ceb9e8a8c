import { searchKinds } from '../adding/find-components'
import { findKind } from '../components'
import type { SheetColumn } from '../components/field'
import type { ComponentKind } from '../components/kind'
import { newRow, type Component } from '../estimate'
import { readQuantity, keptText } from './typed-text'

/** The sheet's columns in the order in which rows are pasted, with the words that a heading may have for them. */
const columns: { key: 'name' | 'part' | SheetColumn; words: string[] }[] = [
  { key: 'name', words: ['component', 'what', 'kind'] },
  { key: 'size', words: ['size', 'class', 'size, class', 'tier', 'type'] },
  { key: 'amount', words: ['how much', 'amount', 'gb', 'storage', 'quantity'] },
  { key: 'runs', words: ['runs', 'hours', 'hours a month'] },
  { key: 'count', words: ['count', 'how many', 'number'] },
  { key: 'pays', words: ['payment', 'pays', 'pays how'] },
  { key: 'where', words: ['where', 'region', 'place'] },
  { key: 'part', words: ['part', 'group', 'workload'] },
]

export type Pasted = { components: Component[]; problems: { line: number; text: string }[] }

/** The kind that a cell names: by its label, else by plain words. */
function kindNamed(text: string): ComponentKind | undefined {
  const wanted = text.trim().toLowerCase()
  if (!wanted) return undefined
  return (
    findKind(wanted) ??
    searchKinds(wanted).find(kind => kind.label.toLowerCase() === wanted) ??
    searchKinds(wanted)[0] ??
    searchKinds(wanted.replace(/s$/, ''))[0]
  )
}

const asHeading = (cells: string[]): (string | null)[] | null => {
  const keys = cells.map(cell => columns.find(c => c.words.includes(cell.trim().toLowerCase()))?.key ?? null)
  return keys.includes('name') ? keys : null
}

/**
 * Rows of a spreadsheet as components. A first line of headings says which column is what; without one the order is that of the sheet:
 * component, size, how much, runs, count, payment, where, part.
 * @param part that rows come into which name none.
 */
export function pasteRows(table: readonly (readonly string[])[], part: string, newId: () => string): Pasted {
  const components: Component[] = []
  const problems: Pasted['problems'] = []
  const heading = table[0] ? asHeading([...table[0]]) : null
  const keys = heading ?? columns.map(c => c.key)
  table.forEach((cells, index) => {
    if ((heading && index === 0) || cells.every(cell => !cell.trim())) return
    const cell = (key: string) => cells[keys.indexOf(key)]?.trim() ?? ''
    const kind = kindNamed(cell('name'))
    if (!kind) return void problems.push({ line: index + 1, text: `nothing that can be priced is called «${cell('name')}»` })
    const inputs: Record<string, string> = cell('where') ? { where: cell('where') } : {}
    for (const column of ['size', 'amount', 'runs', 'count', 'pays'] as const) {
      const field = kind.fields.find(f => f.column === column)
      if (!cell(column)) continue
      if (field) inputs[field.name] = keptText(field, cell(column))
      else
        problems.push({
          line: index + 1,
          text: `${kind.label} have no «${columns.find(c => c.key === column)!.words[0]}»: «${cell(column)}» was left out`,
        })
    }
    components.push(newRow(newId(), cell('part') || part, kind.kind, inputs))
  })
  return { components, problems }
}

/** Whether pasted cells are rows, not values for the cells from the active one on. */
export function looksLikeRows(table: readonly (readonly string[])[]): boolean {
  const first = table[0]?.[0] ?? ''
  return (
    (table[0]?.length ?? 0) > 1 &&
    typeof readQuantity(first, { label: '' }) === 'string' &&
    (asHeading([...table[0]!]) !== null || kindNamed(first) !== undefined)
  )
}

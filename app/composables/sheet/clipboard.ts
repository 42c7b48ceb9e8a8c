import Papa from 'papaparse'
import type { ComputedRef, Ref } from 'vue'
import { readLine } from '../../../core/estimate/adding/read-line'
import { findKind } from '../../../core/estimate/components'
import type { Component } from '../../../core/estimate/estimate'
import { findPlace } from '../../../core/estimate/pricing/place'
import type { InputColumn } from '../../../core/estimate/sheet/columns'
import { looksLikeRows, pasteRows } from '../../../core/estimate/sheet/paste'
import type { useEstimate } from '../../stores/estimate'
import { newId } from '../../utils/estimate-rows'
import { count } from '../../utils/format'
import type { sheetCells } from './cells'

export type Cell = { component: string; column: number }

type Context = {
  store: ReturnType<typeof useEstimate>
  cells: ReturnType<typeof sheetCells>
  active: Ref<Cell | null>
  editing: Ref<boolean>
  /** What was done, in words. */
  said: Ref<string>
  shownRows: ComputedRef<Component[]>
  selected: ComputedRef<Set<string>>
  inputColumns: ComputedRef<InputColumn[]>
}

const wereRows = (rows: number) => (rows === 1 ? 'row was' : 'rows were')

/** Copying cells of the sheet, and pasting cells of a spreadsheet or lines as one types them. */
export function sheetClipboard({ store, cells, active, editing, said, shownRows, selected, inputColumns }: Context) {
  const { fieldAt, value } = cells

  /** Cells of a spreadsheet: rows become components, values go into the cells from the active one on. */
  function onPaste(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (editing.value || !text.trim()) return
    event.preventDefault()
    pasteText(text)
  }

  function pasteText(text: string) {
    if (pasteLines(text)) return
    const table = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: text.includes('\t') ? '\t' : '' }).data
    const current = active.value && store.estimate!.components.find(row => row.id === active.value!.component)
    if (looksLikeRows(table) || !current) pasteAsRows(table, current?.part ?? store.parts.at(-1) ?? 'Workload')
    else pasteInto(table, current, active.value!.column)
  }

  function pasteAsRows(table: string[][], part: string) {
    const { components, problems } = pasteRows(table, part, newId)
    store.addRows(components)
    said.value = [
      `${count(components.length)} ${wereRows(components.length)} pasted.`,
      ...problems.slice(0, 6).map(({ line, text }) => `Line ${line}: ${text}.`),
    ].join(' ')
  }

  function pasteInto(table: string[][], first: Component, column: number) {
    const rows = shownRows.value.slice(shownRows.value.findIndex(row => row.id === first.id))
    let pasted = 0
    table.slice(0, rows.length).forEach((texts, r) =>
      texts.forEach((text, c) => {
        const field = column + c === 0 ? undefined : fieldAt(rows[r]!, column + c)
        if (!field) return
        store.set([rows[r]!.id], field.name, text)
        pasted++
      }),
    )
    said.value = `${count(pasted)} ${pasted === 1 ? 'value was' : 'values were'} pasted.`
  }

  /** Lines as one types them into the adder, such as `100 GB disk x 2`: each becomes a row. @returns whether they were such lines. */
  function pasteLines(text: string): boolean {
    const lines = text
      .trim()
      .split(/\r?\n/)
      .map(line => line.trim())
      .filter(Boolean)
    const place = findPlace('', store.estimate!, store.cards)
    if (text.includes('\t') || lines.length < 2 || !place) return false
    const read = lines.map(line => readLine(line, place))
    if (read.filter(Boolean).length * 2 < lines.length) return false
    store.addRead(read.flatMap(line => line ?? []))
    const left = lines.filter((_, i) => !read[i])
    const unknown = read.flatMap(line => line?.unknown ?? [])
    said.value = [
      `${count(lines.length - left.length)} ${wereRows(lines.length - left.length)} added.`,
      ...(left.length ? [`Not understood: ${left.slice(0, 4).join('; ')}.`] : []),
      ...(unknown.length ? [`Left out: ${unknown.slice(0, 6).join(', ')}.`] : []),
    ].join(' ')
    return true
  }

  function onCopy(event: ClipboardEvent) {
    if (editing.value || !active.value || window.getSelection()?.toString()) return
    const { column } = active.value
    const textAt = (row: Component, at: number) => {
      const field = fieldAt(row, at)
      return field ? value(row, field) : ''
    }
    const texts = shownRows.value
      .filter(row => selected.value.has(row.id))
      .map(row =>
        column > 0
          ? textAt(row, column)
          : [findKind(row.kind)?.label ?? row.kind, ...inputColumns.value.slice(1).map((_, i) => textAt(row, i + 1))].join('\t'),
      )
    event.clipboardData?.setData('text/plain', texts.join('\n'))
    event.preventDefault()
  }

  return { onPaste, pasteText, onCopy }
}

import { useLocalStorage } from '@vueuse/core'

const NARROWEST = 48
const STEP = 12

/** Widths of a table's columns, which are the reader's own: dragged, or changed with the arrows. @param name under which they are kept. */
export function useColumnWidths(name: string) {
  const widths = useLocalStorage<Record<string, number>>(name, {})
  const headOf = (event: Event) => (event.currentTarget as HTMLElement).closest('th')!
  const set = (id: string, width: number) => {
    widths.value = { ...widths.value, [id]: Math.max(NARROWEST, width) }
  }

  const widthOf = (id: string) => {
    const width = widths.value[id] && `${widths.value[id]}px`
    return width ? { width, minWidth: width, maxWidth: width } : {}
  }
  function resize(event: PointerEvent, id: string) {
    const from = event.clientX
    const before = headOf(event).offsetWidth
    const moved = (move: PointerEvent) => set(id, before + move.clientX - from)
    const done = () => {
      window.removeEventListener('pointermove', moved)
      window.removeEventListener('pointerup', done)
    }
    window.addEventListener('pointermove', moved)
    window.addEventListener('pointerup', done)
  }
  function resizeByKey(event: KeyboardEvent, id: string) {
    const step = event.key === 'ArrowLeft' ? -STEP : event.key === 'ArrowRight' ? STEP : 0
    if (!step) return
    event.preventDefault()
    set(id, headOf(event).offsetWidth + step)
  }
  const forget = () => {
    widths.value = {}
  }
  return { widths, widthOf, resize, resizeByKey, forget }
}
export type ColumnWidths = ReturnType<typeof useColumnWidths>

import { computed, ref } from 'vue'
import { addDays, monthEnd } from '../../core/time/day'
import type { Grain } from '../../core/time/grain'
import type { Period } from '../../core/time/period'

const MOVED_PX = 8

/** The days from the first of a range of starts to the end of its last. */
export function periodOfStarts(first: string, last: string, grain: Grain): Period {
  const day = last.slice(0, 10)
  const end =
    grain === 'month'
      ? monthEnd(day.slice(0, 7))
      : grain === 'quarter'
        ? monthEnd(addDays(day, 75).slice(0, 7))
        : addDays(day, grain === 'week' ? 7 : 1)
  return { start: first.slice(0, 10), end }
}

/**
 * A range of starts that is dragged over with the pointer.
 * @param startAt the place of the start under a pixel; null outside the drawing.
 * @param pixelOf where the middle of a start is.
 * @param chosen is told the first and the last place when the pointer lets go.
 */
export function useChartRange(
  startAt: (x: number) => number | null,
  pixelOf: (start: number) => number,
  chosen: (from: number, to: number) => void,
) {
  const dragged = ref<{ from: number; to: number } | null>(null)
  let pressedAt: { x: number; start: number } | null = null

  function press(event: PointerEvent) {
    const start = startAt(event.offsetX)
    pressedAt = start === null || event.button !== 0 ? null : { x: event.offsetX, start }
  }
  function drag(event: PointerEvent) {
    if (!pressedAt || Math.abs(event.offsetX - pressedAt.x) < MOVED_PX) return
    const start = startAt(event.offsetX)
    if (start !== null) dragged.value = { from: Math.min(pressedAt.start, start), to: Math.max(pressedAt.start, start) }
  }
  function release() {
    const range = dragged.value
    pressedAt = null
    if (!range) return
    setTimeout(() => {
      dragged.value = null // after the click that follows a drag has been passed over
    })
    chosen(range.from, range.to)
  }
  const shade = computed(() => {
    if (!dragged.value) return null
    const { from, to } = dragged.value
    const step = pixelOf(1) - pixelOf(0)
    return { left: `${pixelOf(from) - step / 2}px`, width: `${step * (to - from + 1)}px` }
  })
  return { dragged, press, drag, release, shade }
}

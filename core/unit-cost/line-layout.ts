/** A line of a picture over months: the stretches of it that are known, as points from 0 to 1 in either direction, the first month left. */
export type DrawnLine = { name: string; stretches: { x: number; y: number; at: number }[][] }
/** Lines over the same months, and what the picture's upper edge stands for; values below zero reach below `zero`. */
export type DrawnLines = { lines: DrawnLine[]; top: number; bottom: number; zero: number }

/**
 * Lays lines out over the same months, from zero on: where a value is not defined the line is broken, not drawn down to zero.
 * @param series decimal texts by month; null where not defined.
 */
export function lineLayout(series: readonly { name: string; values: readonly (string | null)[] }[]): DrawnLines {
  const all = series.flatMap(({ values }) => values.flatMap(value => (value === null ? [] : [Number(value)])))
  const top = niceAbove(Math.max(0, ...all))
  const bottom = -niceAbove(-Math.min(0, ...all))
  const span = top - bottom || 1
  const lines = series.map(({ name, values }) => {
    const stretches: DrawnLine['stretches'] = [[]]
    values.forEach((value, at) => {
      if (value === null) stretches.push([])
      else stretches.at(-1)!.push({ at, x: values.length > 1 ? at / (values.length - 1) : 0.5, y: (top - Number(value)) / span })
    })
    return { name, stretches: stretches.filter(stretch => stretch.length) }
  })
  return { lines, top, bottom, zero: top / span }
}

/** The next round number from a value on: 1, 2, 2.5 or 5 and zeros. */
function niceAbove(value: number): number {
  if (value <= 0) return 0
  const power = 10 ** Math.floor(Math.log10(value))
  return [1, 2, 2.5, 5, 10].map(step => step * power).find(step => step >= value * (1 - 1e-12))!
}

import { dayFromNumber, dayNumber, type Day } from '../time/day'
import { grainSteps } from '../time/grain'
import type { Grouping } from './question'
import { placeWithin, type Reach } from './reach'
import type { Reached } from './reached'
import { hourOf, type Segment } from './segment'

/** The steps of time that groups stand in: where each begins and, by day since `from`, which one it is; null where each hour is one. */
export type Steps = { starts: string[]; stepOfDay: Int32Array | null; from: number; cuts: number[] | null }

/** By a segment's places of time the step of the grain, 0 without a grain; −1 outside the period. */
export function stepsOf({ time }: Segment, { starts, stepOfDay, from: first }: Steps, reach: Reach): Int32Array {
  return Int32Array.from(time.starts, start => {
    const hour = placeWithin(reach, hourOf(start))
    if (hour === null) return -1
    return stepOfDay ? stepOfDay[Math.floor((hour - first) / 24)]! : starts.length ? hour - first : 0
  })
}

/** Starts of the grain, only as far as the segments reach into the period. */
export function stepsWithin(segments: Reached[], { start, end, grain, cuts }: Grouping): Steps {
  if (grain === null && !cuts) return { starts: [], stepOfDay: null, from: 0, cuts: null }
  const startHour = dayNumber(start) * 24
  const [least, most] = segments.reduce(
    ([least, most], { segment, reach: { from, to, place } }) => {
      // charges of another time stand at the start of their billing period
      const placed = place
        ? [segment.firstHour, segment.lastHour, ...(place(segment.firstHour) === segment.firstHour ? [] : [place(-1)])]
        : null
      const first = placed ? Math.min(...placed) : segment.firstHour
      const last = placed ? Math.max(...placed) : segment.lastHour
      return [Math.min(least, Math.max(from, first)), Math.max(most, Math.min(to - 1, last))]
    },
    [Infinity, -Infinity],
  )
  const first = Math.max(startHour, least)
  const last = Math.min(dayNumber(end) * 24 - 1, most)
  if (first > last) return { starts: [''], stepOfDay: new Int32Array(1), from: startHour, cuts: cuts ? [0] : null }
  const from = Math.floor(first / 24)
  const days = Math.floor(last / 24) + 1 - from
  const steps =
    grain === null ? { starts: [''], stepOfDay: new Int32Array(days) } : grainSteps(dayFromNumber(from), dayFromNumber(from + days), grain)
  return { ...(cuts ? cutSteps(steps, from, days, cuts) : { ...steps, cuts: null }), from: from * 24 }
}

/** Steps that begin anew at each cut; hours lie between cuts as they are. */
function cutSteps(
  { starts, stepOfDay }: { starts: string[]; stepOfDay: Int32Array | null },
  from: number,
  days: number,
  cuts: readonly Day[],
): Omit<Steps, 'from'> {
  const numbers = cuts.map(dayNumber)
  const cutOfDay = new Int32Array(days)
  for (let day = 0, cut = 0; day < days; day++) {
    while (cut + 1 < numbers.length && numbers[cut + 1]! <= from + day) cut++
    cutOfDay[day] = cut
  }
  if (!stepOfDay) return { starts, stepOfDay, cuts: starts.map((_, hour) => cutOfDay[Math.floor(hour / 24)]!) }
  const cut: Omit<Steps, 'from'> & { cuts: number[] } = { starts: [], stepOfDay: new Int32Array(days), cuts: [] }
  for (let day = 0; day < days; day++) {
    if (day === 0 || stepOfDay[day] !== stepOfDay[day - 1] || cutOfDay[day] !== cutOfDay[day - 1]) {
      cut.starts.push(starts[stepOfDay[day]!]!)
      cut.cuts.push(cutOfDay[day]!)
    }
    cut.stepOfDay![day] = cut.starts.length - 1
  }
  return cut
}

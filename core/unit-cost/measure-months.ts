import { scaled, scaledText, type Scaled } from '../money/scaled'
import { manyOf } from '../text/many-of'
import type { BusinessMeasure, MeasureGrain, MeasureValue } from './business-measure'

/** What was counted in a month for a cost centre, as decimal text, and for how many dates that is told. */
export type MonthCount = { sum: string; told: number }
/** A business measure by month and cost centre; the tree is null where it is the first. */
export type MeasureMonths = {
  name: string
  unit: string
  grain: MeasureGrain
  tree: string | null
  months: Readonly<Record<string, Readonly<Record<string, MonthCount>>>>
}

/** What was counted, by month and cost centre. */
export function measureMonths({ name, unit, grain, tree, values }: BusinessMeasure): MeasureMonths {
  const months = new Map<string, Map<string, { sum: Scaled; told: number }>>()
  for (const { centre, date, value } of values) {
    const month = date.slice(0, 7)
    const counted = months.get(month) ?? new Map<string, { sum: Scaled; told: number }>()
    months.set(month, counted)
    const own = counted.get(centre) ?? { sum: 0n, told: 0 }
    counted.set(centre, { sum: own.sum + scaled(value), told: own.told + 1 })
  }
  const texts = [...months].map(([month, counted]) => {
    const own = [...counted].map(([centre, { sum, told }]) => [centre, { sum: scaledText(sum), told }] as const)
    return [month, Object.fromEntries(own)] as const
  })
  return { name, unit, grain, tree, months: Object.fromEntries(texts) }
}

/** What was told before with what a load tells in its place, by cost centre and date; how many of its values are new, or others. */
export function withLoad(
  before: readonly MeasureValue[],
  load: readonly MeasureValue[],
): { values: MeasureValue[]; added: number; changed: number } {
  const keyOf = ({ centre, date }: MeasureValue) => JSON.stringify([centre, date])
  const known = new Map(before.map(value => [keyOf(value), value]))
  let [added, changed] = [0, 0]
  for (const value of load) {
    const own = known.get(keyOf(value))
    if (!own) added++
    else if (scaled(own.value) !== scaled(value.value)) changed++
    known.set(keyOf(value), value)
  }
  return { values: [...known.values()], added, changed }
}

/** What a load adds and changes, in a line: `31 values added, 1 changed`. */
export function loadWords({ added, changed }: { added: number; changed: number }): string {
  if (!added && !changed) return 'nothing new'
  if (!changed) return `${manyOf(added, 'value')} added`
  return added ? `${manyOf(added, 'value')} added, ${changed} changed` : `${manyOf(changed, 'value')} changed`
}

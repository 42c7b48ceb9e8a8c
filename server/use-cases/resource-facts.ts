import { scaledText } from '../../core/money/scaled'
import type { SkuMeaning } from '../../core/ratecard/sku-meanings'
import type { RunTimes } from '../../core/spend/run-times'
import { addDays, daysBetween } from '../../core/time/day'
import type { ResourceView } from '../../shared/contracts/resources'

/** Every charge there is. */
export const ALWAYS = { start: '1970-01-01', end: '2200-01-01', leaveOut: {} }

/** The column in which a provider names what a resource protects, such as the disk that a snapshot is of. */
export const PROTECTS_COLUMN = 'x_Protects'

type Groups = { values: Record<string, string | null>; start: string | null; amounts: bigint[] }[]

/** Each tag's values with where they come from and between which days they were seen. */
export function tagsOver(groups: Groups, keys: string[]): ResourceView['tags'] {
  const seen = new Map<string, ResourceView['tags'][number]>()
  for (const { values, start } of groups) {
    for (const key of keys) {
      const value = values[`Tags/${key}`]
      const from = values[`TagsFrom/${key}`] as 'own' | 'container' | 'account' | null
      if (!value || !from) continue
      const id = `${key}\u0000${value}\u0000${from}`
      const known = seen.get(id)
      if (!known) seen.set(id, { key, value, from, firstDay: start!, lastDay: start! })
      else {
        if (start! < known.firstDay) known.firstDay = start!
        if (start! > known.lastDay) known.lastDay = start!
      }
    }
  }
  return [...seen.values()].sort((a, b) => (a.key === b.key ? (a.firstDay < b.firstDay ? -1 : 1) : a.key < b.key ? -1 : 1))
}

/** What is charged for a resource, in plain words. */
export function metersOf(groups: Groups, meanings: Record<string, SkuMeaning>): ResourceView['meters'] {
  const found = new Map<string, ResourceView['meters'][number]>()
  for (const { values, start, amounts } of groups) {
    const key = JSON.stringify([values.SkuId, values.SkuMeter, values.PricingUnit])
    const meaning = values.SkuId && Object.hasOwn(meanings, values.SkuId) ? meanings[values.SkuId] : undefined
    const meter = found.get(key) ?? {
      skuId: values.SkuId ?? null,
      meter: values.SkuMeter ?? null,
      words: meaning?.words ?? null,
      charged: meaning?.charged ?? null,
      unit: values.PricingUnit ?? null,
      days: [],
    }
    found.set(key, meter)
    meter.days.push({ start: start!, amount: scaledText(amounts[0]!), quantity: scaledText(amounts[1]!) })
  }
  for (const meter of found.values()) meter.days.sort((a, b) => (a.start < b.start ? -1 : 1))
  return [...found.values()]
}

/** The newest details of its prices. */
export function detailsOf(groups: Groups, names: string[]): Record<string, string> {
  const newest = [...groups].sort((a, b) => (a.start! < b.start! ? 1 : -1))
  return Object.fromEntries(
    names.flatMap(name => {
      const value = newest.map(g => g.values[name]).find(v => v)
      return value ? [[name, value]] : []
    }),
  )
}

const SIZE = 'SkuPriceDetails/InstanceType'

type Known = {
  firstDay: string
  lastDay: string
  gone: boolean
  tags: ResourceView['tags']
  priced: Groups
  details: string[]
  runs: RunTimes | null
}

/** What has happened to it, as its charges show. */
export function eventsOf({ firstDay, lastDay, gone, tags, priced, details, runs }: Known): ResourceView['events'] {
  const events: ResourceView['events'] = [{ day: firstDay, what: 'charged for the first time' }]
  for (const { from, to } of runs?.still ?? []) {
    events.push(
      { day: from, what: 'stopped: no running hours from this day on' },
      { day: addDays(to, 1), what: `started again after ${daysBetween(from, to) + 1} ${from === to ? 'day' : 'days'}` },
    )
  }
  for (const tag of tags) {
    if (tag.from !== 'own') continue
    const before = tags.find(t => t.key === tag.key && t.from === 'own' && t.lastDay < tag.firstDay)
    if (tag.firstDay > firstDay)
      events.push({
        day: tag.firstDay,
        what: before ? `tag ${tag.key} changed from ${before.value} to ${tag.value}` : `tag ${tag.key} came: ${tag.value}`,
      })
  }
  if (details.includes(SIZE)) {
    let size: string | null = null
    for (const { values, start } of [...priced].sort((a, b) => (a.start! < b.start! ? -1 : 1))) {
      const own = values[SIZE] ?? null
      if (own && size && own !== size) events.push({ day: start!, what: `size changed from ${size} to ${own}` })
      size = own ?? size
    }
  }
  if (gone) events.push({ day: lastDay, what: 'charged for the last time' })
  return events.sort((a, b) => (a.day < b.day ? -1 : 1))
}

const HOURS = /^hours?$/i

/** Charged hours by day, of the meter that has most where there are several by the hour. */
export function hoursOf(groups: Groups): Map<string, number> {
  const found = new Map<string, number>()
  for (const { values, start, amounts } of groups) {
    if (HOURS.test(values.PricingUnit ?? '')) found.set(start!, Math.max(found.get(start!) ?? 0, Number(amounts[1]!) / 1e15))
  }
  return found
}

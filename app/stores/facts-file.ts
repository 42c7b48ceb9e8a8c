import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { CostCentre } from '../../core/allocation/plan'
import { namedTargets } from '../../core/allocation/tree'
import type { Lookup } from '../../core/spend/lookup'
import { isSameLookup, lookupDifference, type LookupDifference } from '../../core/spend/lookup-difference'
import { readLookupTable } from '../../core/spend/lookup-table'
import type { BusinessMeasure } from '../../core/unit-cost/business-measure'
import { loadWords, measureMonths, withLoad } from '../../core/unit-cost/measure-months'
import { readMeasureTable } from '../../core/unit-cost/measure-table'
import { measureList, measuresSave, measuresSaved, measureState, type MeasureState } from '../../shared/contracts/measures'
import { lookup, lookupList, lookupSaved, lookupState, type LookupState } from '../../shared/contracts/spend-settings'
import { manyOf } from '../../core/text/many-of'
import { planState, planVersions } from '../../shared/contracts/allocation'
import { useAttempt } from '../composables/useAttempt'
import { useMonthEffects, type NotSaved } from '../composables/useMonthEffects'
import { client, refusal } from '../utils/client'
import { jsonOf, linesSaid, namedSome, placeText, tableOf } from '../utils/dropped-file'
import { useAllocation } from './allocation'
import { useData } from './data'

const at = encodeURIComponent
const isJson = (file: string) => file.toLowerCase().endsWith('.json')

type LookupReview = { kind: 'lookup'; file: string; name: string; own: Lookup; current: LookupState; difference: LookupDifference }
type MeasureReview = {
  kind: 'measures'
  file: string
  measures: (BusinessMeasure & { current: MeasureState | null; added: number; changed: number })[]
}

/** A file of a lookup or of business measures: what it would change, and what would move in each month, before it is taken. */
export const useFactsFile = defineStore('facts-file', () => {
  const review = shallowRef<LookupReview | MeasureReview | null>(null)
  /** What would move, by month. */
  const months = useMonthEffects()
  /** The cost centres that there are. */
  const centres = shallowRef<readonly CostCentre[]>([])
  /** The same and pools, by their names. */
  const targets = shallowRef<readonly { id: string; name: string }[]>([])
  const { attempt, problem, busy } = useAttempt()
  /** What was read, to be held against what is there once more. */
  let read: { file: string; name: string; own: Lookup } | { file: string; measures: BusinessMeasure[] } | null = null

  /** One file at a time is decided: another would take its place unseen. */
  function mayReceive(file: string) {
    if (review.value)
      throw refusal(`«${file}» was not taken`, `«${review.value.file}» waits to be decided: use or discard it, then drop this one again.`)
  }

  /**
   * Receives a file. What nobody has is taken at once; else it is held against what is there, for someone to decide.
   * @returns what is said of it when it was taken; null where it waits.
   */
  async function receiveLookup(file: string, text: string): Promise<string | null> {
    mayReceive(file)
    const name = file.replace(/\.(csv|json|txt)$/i, '').replace(/^lookup[-_ ]/i, '')
    const own = isJson(file) ? lookupOfJson(file, text) : lookupOfTable(file, text)
    const { lookups } = await client.get('lookups', lookupList)
    if (!lookups.some(one => one.name === name)) return sendLookup(name, own)
    read = { file, name, own }
    await hold()
    return null
  }

  async function receiveMeasures(file: string, text: string): Promise<string | null> {
    mayReceive(file)
    const measures = isJson(file) ? measuresOfJson(file, text) : measuresOfTable(file, text)
    const known = await client.get('measures', measureList)
    if (!measures.some(one => known.measures.some(({ name }) => name === one.name))) return sendMeasures(measures.map(one => [one, null]))
    read = { file, measures }
    await hold()
    return null
  }

  /** Holds what was read against what is there now. */
  async function hold() {
    if (!read) return
    if ('own' in read) {
      const { file, name, own } = read
      const current = await client.get(`lookups/${at(name)}`, lookupState)
      const difference = lookupDifference(current.lookup, own)
      review.value = { kind: 'lookup', file, name, own, current, difference }
      await look(isSameLookup(difference) ? null : { lookups: { [name]: own } })
      return
    }
    const known = (await client.get('measures', measureList)).measures.map(({ name }) => name)
    const measures: MeasureReview['measures'] = []
    for (const own of read.measures) {
      const current = known.includes(own.name) ? await client.get(`measures/${at(own.name)}`, measureState) : null
      const { added, changed } = withLoad(current?.values ?? [], own.values)
      measures.push({ ...own, current, added, changed })
    }
    review.value = { kind: 'measures', file: read.file, measures }
    const merged = measures.map(one => measureMonths({ ...one, values: withLoad(one.current?.values ?? [], one.values).values }))
    await look(measures.some(({ added, changed }) => added || changed) ? { measures: merged } : null)
  }

  /** Looks what would move, where there is something to be moved. */
  async function look(changed: NotSaved | null) {
    months.stop()
    if (!changed || !useData().facts?.lastDay) return
    const { versions } = await client.get('allocation/versions', planVersions)
    if (!versions.length) return
    const { plan } = await client.get('allocation/plan', planState)
    centres.value = plan.centres
    targets.value = namedTargets(plan)
    void months.look(changed, { measure: 'effectiveCost' })
  }

  async function sendLookup(name: string, own: Lookup, basedOn?: number): Promise<string> {
    const { entries } = await client.send('PUT', `lookups/${at(name)}`, { ...own, basedOn }, lookupSaved)
    useAllocation().forget()
    return `lookup «${name}», ${manyOf(entries, 'entry', 'entries')}`
  }

  async function sendMeasures(list: (readonly [BusinessMeasure, number | null])[]): Promise<string> {
    const measures = list.map(([measure, basedOn]) => ({ ...measure, ...(basedOn !== null && { basedOn }) }))
    const { saved } = await client.send('PUT', 'measures', { measures }, measuresSaved)
    useAllocation().forget()
    return saved
      .map(({ name, added, changed, unknown }) => {
        const lost = unknown.length ? `, of cost centres that are not there: ${unknown.join(', ')}` : ''
        return `${name}: ${loadWords({ added, changed })}${lost}`
      })
      .join('; ')
  }

  /** Takes what was reviewed. @returns what is said of it; null where it could not be taken. */
  async function take(): Promise<string | null> {
    const own = review.value
    if (!own) return null
    let said: string | null = null
    await attempt(async () => {
      said =
        own.kind === 'lookup'
          ? await sendLookup(own.name, own.own, own.current.version)
          : await sendMeasures(
              own.measures.map(({ current, added: _, changed: __, ...one }) => [one, current?.saved?.version ?? null] as const),
            )
    })
    if (said !== null) leave()
    return said
  }

  /** Holds the file against what has been saved meanwhile. */
  const again = () => attempt(hold)

  function leave() {
    months.stop()
    read = null
    review.value = null
    problem.value = null
  }

  return { review, months, centres, targets, problem, busy, receiveLookup, receiveMeasures, take, again, leave }
})

function lookupOfTable(file: string, text: string): Lookup {
  const { lookup: own, wrong } = readLookupTable(tableOf(file, text))
  if (!own) throw refusal(`«${file}» was not taken`, linesSaid(wrong))
  return checked(file, own, true)
}

const lookupOfJson = (file: string, text: string): Lookup => checked(file, jsonOf(file, text), false)

function measuresOfTable(file: string, text: string): BusinessMeasure[] {
  const { measures, wrong } = readMeasureTable(tableOf(file, text))
  if (wrong.length) throw refusal(`«${file}» was not taken`, linesSaid(wrong))
  if (!measures.length) throw refusal(`«${file}» was not taken`, 'It has no rows below its heads.')
  return measures
}

/** Measures as the interface gives them out and takes them; a version that one was held against is not of this file. */
function measuresOfJson(file: string, text: string): BusinessMeasure[] {
  const read = measuresSave.safeParse(jsonOf(file, text))
  if (read.success) return read.data.measures.map(({ basedOn: _, ...measure }) => measure)
  throw refusal(`«${file}» was not taken`, namedSome(read.error.issues.map(({ path, message }) => `${placeText(path)}: ${message}`)))
}

/** @throws RequestFailed that names each wrong place: of a table by its line. */
function checked(file: string, value: unknown, isTable: boolean): Lookup {
  const read = lookup.safeParse(value)
  if (read.success) return read.data
  const wrong = read.error.issues.map(({ path, message }): string => {
    const [list, place, ...others] = path
    if (list === 'entries' && typeof place === 'number') return `${isTable ? `line ${place + 2}` : `entry ${place + 1}`}: ${message}`
    return [path.length && !isTable ? `${[list, place, ...others].filter(part => part !== undefined).join(' ')}: ` : '', message].join('')
  })
  throw refusal(`«${file}» was not taken`, namedSome(wrong))
}

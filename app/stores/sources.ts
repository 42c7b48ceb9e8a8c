import { defineStore } from 'pinia'
import { z } from 'zod'
import type { ProblemDetails } from '../../shared/contracts/common'
import {
  importStatus,
  movedLines,
  sourcesOverview,
  type ImportStatus,
  type MovedLines,
  type SourcesOverview,
} from '../../shared/contracts/imports'
import { watchList, type Watch, type watchInput } from '../../shared/contracts/watches'
import { rateCardList, type RateCardEntry } from '../../shared/contracts/reference-data'
import { ref } from 'vue'
import { useData } from './data'
import { client, problemOf } from '../utils/client'
import { peek } from '../utils/peek'
import { takeMeasurements, takers } from '../utils/take-file'

/** Files dropped together for one source and billing period: what will be loaded as one delivery. */
export type Waiting = {
  key: string
  source: string
  billingPeriodStart: string | null
  files: File[]
  /** The beginning of a file that is no FOCUS. */ text: string | null
}
/** A file that is no delivery, and what became of it. */
export type Taken = { name: string; said: string; problem: ProblemDetails | null }

const OPEN = ['checking', 'loading']

export const useSources = defineStore('sources', () => {
  const overview = ref<SourcesOverview | null>(null)
  const cards = ref<RateCardEntry[]>([])
  const problem = ref<ProblemDetails | null>(null)
  const waiting = ref<Waiting[]>([])
  const taken = ref<Taken[]>([])
  const sending = ref(false)
  const chosen = ref<ImportStatus | null>(null)
  const moved = ref<MovedLines | null>(null)
  const watches = ref<Watch[]>([])
  const watchable = ref<string[]>([])
  const mappedSources = ref<string[]>([])
  /** Key of the waiting delivery whose mapping is being said. */
  const mapping = ref<string | null>(null)
  const data = useData()
  let watching = false

  async function load() {
    try {
      ;[overview.value, { cards: cards.value }, { watches: watches.value, folders: watchable.value }] = await Promise.all([
        client.get('sources', sourcesOverview),
        client.get('rate-cards', rateCardList),
        client.get('watches', watchList),
      ])
      problem.value = null
      void watch()
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  /** Sorts dropped files: charges wait to be confirmed, what else there is is taken, or waits to be reviewed. */
  async function drop(files: File[]) {
    for (const file of files) {
      const seen = await peek(file)
      if (seen.kind === 'charges') {
        const source = seen.provider ?? file.name.replace(/(\.csv)?(\.gz)?$/i, '')
        const key = `${source} ${seen.billingPeriodStart}`
        const known = waiting.value.find(w => w.key === key)
        if (known) known.files.push(file)
        else waiting.value.push({ key, source, billingPeriodStart: seen.billingPeriodStart, files: [file], text: null })
      } else if (seen.kind === 'foreign charges') {
        // a provider's own columns: the source is named after the file until a person says otherwise
        const source = file.name.replace(/(\.(csv|txt|tsv))?(\.gz)?$/i, '').replace(/[-_ ]*\d{4}([-_]?\d{2})?$/, '')
        const key = `${source} ${file.name}`
        waiting.value.push({ key, source, billingPeriodStart: null, files: [file], text: seen.text })
        await loadMapped()
        if (!isMapped(waiting.value.at(-1)!)) mapping.value = key
      } else if (seen.kind === 'unknown') {
        taken.value.push({
          name: file.name,
          said: '',
          problem: { type: '', status: 0, code: 'unknown-file', title: `«${file.name}» was not taken`, detail: `It is ${seen.reason}.` },
        })
      } else if (seen.kind === 'measurements') await taking(file.name, () => takeMeasurements(file))
      else await take(file.name, seen.kind, seen.text)
    }
  }

  /** Reads for which sources a mapping is kept; when that cannot be asked, the problem is shown and mappings are asked for. */
  async function loadMapped() {
    try {
      mappedSources.value = (await client.get('mappings', z.object({ sources: z.array(z.string()) }))).sources
    } catch (error) {
      problem.value = problemOf(error)
    }
  }
  /** Whether a file that is no FOCUS has a mapping kept for the source it is to be loaded under. */
  const isMapped = (delivery: Waiting) => delivery.text !== null && mappedSources.value.includes(delivery.source.trim())

  /** Takes a file that is no delivery, and says what became of it. */
  const take = (name: string, kind: keyof typeof takers, text: string) =>
    taking(name, async () => {
      const said = await takers[kind](text, name)
      if (kind === 'account tree') await data.load()
      return said
    })
  async function taking(name: string, work: () => Promise<string | null>) {
    try {
      const said = await work()
      if (said !== null) taken.value.push({ name, problem: null, said })
      await load()
    } catch (error) {
      taken.value.push({ name, said: '', problem: { ...problemOf(error), title: `«${name}» was not taken` } })
    }
  }

  /** Sends what waits, one delivery after the other; each starts loading when its last file has arrived. */
  async function sendAll() {
    sending.value = true
    try {
      for (const delivery of [...waiting.value].sort((a, b) => ((a.billingPeriodStart ?? '') < (b.billingPeriodStart ?? '') ? -1 : 1))) {
        const { id } = await client.send(
          'POST',
          'deliveries',
          {
            source: delivery.source,
            mapped: isMapped(delivery),
            deliveredAt: new Date(Math.max(...delivery.files.map(file => file.lastModified))).toISOString(),
            isFileTime: true,
            files: delivery.files.map(file => ({ name: file.name, bytes: file.size })),
          },
          z.object({ id: z.string() }),
        )
        let importId: string | null = null
        for (const [number, file] of delivery.files.entries()) {
          ;({ importId } = await client.upload(
            'PUT',
            `deliveries/${id}/files/${number}`,
            file,
            z.object({ importId: z.string().nullable() }),
          ))
        }
        waiting.value = waiting.value.filter(w => w !== delivery && w.key !== delivery.key)
        if (importId) await choose(importId)
      }
      problem.value = null
    } catch (error) {
      problem.value = problemOf(error)
    } finally {
      sending.value = false
      await load()
    }
  }

  const anyOpen = () =>
    overview.value?.loads.some(l => OPEN.includes(l.state)) || (chosen.value !== null && OPEN.includes(chosen.value.state))

  /** Follows loads under way until none is. */
  async function watch() {
    if (watching) return
    watching = true
    try {
      while (anyOpen()) {
        await new Promise(resolve => setTimeout(resolve, 400))
        overview.value = await client.get('sources', sourcesOverview)
        if (chosen.value) chosen.value = await client.get(`imports/${chosen.value.id}`, importStatus)
        if (!anyOpen()) await data.load()
      }
    } catch (error) {
      problem.value = problemOf(error)
    } finally {
      watching = false
    }
  }

  async function choose(id: string) {
    try {
      chosen.value = await client.get(`imports/${id}`, importStatus)
      moved.value = null
      if (chosen.value.state === 'loaded' && chosen.value.changes.some(change => change.before !== null && Number(change.difference) !== 0))
        moved.value = await client.get(`imports/${id}/moved`, movedLines)
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  async function stop(id: string) {
    try {
      await client.send('POST', `imports/${id}/stop`, {}, z.object({ id: z.string() }))
    } catch (error) {
      problem.value = problemOf(error)
    }
    await load()
  }

  /** Does something to a load and reads all anew. */
  async function change(path: string, body: unknown = {}, method: 'POST' | 'DELETE' = 'POST') {
    try {
      const { id } = await client.send(method, path, body, z.object({ id: z.string() }))
      await choose(id)
      await data.load()
    } catch (error) {
      problem.value = problemOf(error)
    }
    await load()
  }
  const undo = (id: string, empty: boolean) => change(`imports/${id}/undo`, { empty })
  const redo = (id: string) => change(`imports/${id}/redo`)
  const decide = (id: string, use: 'this' | 'other' | 'both') => change(`imports/${id}/choose`, { use })
  /** Takes all of a source out, and shows the load by which that can be undone. */
  const takeOut = (source: string) => change(`sources/${encodeURIComponent(source)}`, {}, 'DELETE')

  async function watchPlace(input: z.input<typeof watchInput>) {
    await client.send('POST', 'watches', input, z.object({ id: z.number(), said: z.string() }))
    await load()
  }
  async function lookNow(id: number) {
    await client.send('POST', `watches/${id}/look`, {}, z.object({ id: z.number(), said: z.string() }))
    await load()
  }
  async function unwatch(id: number) {
    await client.send('DELETE', `watches/${id}`, {}, z.object({ id: z.number() }))
    await load()
  }

  return {
    ...{ overview, cards, problem, load, waiting, taken, sending, drop, sendAll, chosen, choose, moved, stop, undo, redo, decide, takeOut },
    ...{ mapping, isMapped, loadMapped, watches, watchable, watchPlace, lookNow, unwatch },
  }
})

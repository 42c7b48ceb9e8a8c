import { defineStore } from 'pinia'
import { z } from 'zod'
import { jobList, type JobChange, type JobView } from '../../shared/contracts/jobs'
import { computed, ref } from 'vue'
import { client } from '../utils/client'

const LOOK_EVERY_MS = 1000
const numbered = z.object({ id: z.number() })

/** What runs by itself, and what runs now; looked at again while something runs. */
export const useJobs = defineStore('jobs', () => {
  const list = ref<JobView[] | null>(null)
  /** What someone should look at: it failed, or nobody knows what became of it. */
  const wanting = computed(() => (list.value ?? []).filter(({ state }) => state === 'failed' || state === 'not known'))
  let timer: ReturnType<typeof setTimeout> | undefined
  let isWatched = false

  async function load() {
    clearTimeout(timer)
    list.value = (await client.get('jobs', jobList)).jobs
    if (isWatched && list.value.some(job => job.state === 'running')) timer = setTimeout(() => void load().catch(() => {}), LOOK_EVERY_MS)
  }
  /** Looks again and again while a page shows them. */
  function watchJobs(on: boolean) {
    isWatched = on
    if (!on) clearTimeout(timer)
  }
  async function act(id: number, what: 'run' | 'stop') {
    await client.send('POST', `jobs/${id}/${what}`, {}, numbered)
    await load()
  }
  async function change(id: number, changed: JobChange) {
    await client.send('PUT', `jobs/${id}`, changed, numbered)
    await load()
  }
  return { list, wanting, load, watchJobs, act, change }
})

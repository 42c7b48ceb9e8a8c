import { defineStore } from 'pinia'
import type { z } from 'zod'
import type { ProblemDetails } from '../../shared/contracts/common'
import { importStatus } from '../../shared/contracts/imports'
import { connectionState } from '../../shared/contracts/connections'
import { dayPassed } from '../../shared/contracts/savings'
import { ref } from 'vue'
import { useData } from './data'
import { client, problemOf } from '../utils/client'
import { money } from '../../shared/words/amounts'
import { count } from '../utils/format'
import { monthText } from '../../shared/words/days'

type Connection = z.infer<typeof connectionState>['connections'][number]

/** The bill as it is now, or after some time has passed at a simulated cloud. */
export type Delivered = 'fetch' | 'next-day' | 'next-week' | 'next-month'

/** Clouds that are connected: what time it is there, and the bill they deliver. */
export const useConnections = defineStore('connections', () => {
  const list = ref<Connection[]>([])
  const problem = ref<ProblemDetails | null>(null)
  const busy = ref<string | null>(null)
  const said = ref('')

  async function load() {
    try {
      list.value = (await client.get('connections', connectionState)).connections
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  /** Asks for the bill to date, after time has passed or as it is, and waits until it is loaded. */
  async function deliver(name: string, how: Delivered) {
    if (busy.value) return
    busy.value = how
    said.value = ''
    try {
      const { importIds } = await client.send('POST', `connections/${encodeURIComponent(name)}/${how}`, {}, dayPassed)
      const ended: string[] = []
      for (const id of importIds) {
        let status = await client.get(`imports/${id}`, importStatus)
        while (status.state === 'checking' || status.state === 'loading') {
          said.value = `${count(status.rows)} charges read`
          await new Promise(resolve => setTimeout(resolve, 250))
          status = await client.get(`imports/${id}`, importStatus)
        }
        ended.push(
          status.state === 'loaded'
            ? `${count(status.rows)} charges loaded; ${status.changes.map(c => `${monthText(c.billingPeriodStart)} changed by ${money(c.difference, c.currency)} ${c.currency}`).join(', ')}`
            : `the delivery was ${status.state}: ${status.message ?? `${status.errorCount} errors`}`,
        )
        said.value = ended.join('; ')
      }
      problem.value = null
    } catch (error) {
      problem.value = problemOf(error)
    }
    busy.value = null
    await load()
    await useData().load()
  }

  return { list, problem, busy, said, load, deliver }
})

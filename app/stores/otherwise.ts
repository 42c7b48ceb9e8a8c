import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { otherwiseView, type OtherwiseInput, type OtherwiseView } from '../../shared/contracts/savings-own'
import { client } from '../utils/client'

/** What things that are charged for would cost otherwise, and what was chosen of it. */
export const useOtherwise = defineStore('otherwise', () => {
  const view = shallowRef<OtherwiseView | null>(null)
  const asked = shallowRef<OtherwiseInput | null>(null)
  /** How many were chosen, or taken back, a moment ago. */
  const told = ref<{ resources: number; isChosen: boolean } | null>(null)
  const opened = computed(() => view.value?.found?.ways.find(({ each }) => each) ?? null)

  async function load(next: OtherwiseInput) {
    asked.value = next
    told.value = null
    const read = await client.send('POST', 'savings/otherwise', next, otherwiseView)
    // what was asked for since is on its way
    if (asked.value === next) view.value = read
  }

  /** Chooses the opened way for some resources, or takes that back. */
  async function choose(resources: string[], isChosen: boolean) {
    const [found, way] = [view.value?.found, opened.value]
    if (!found || !way || !asked.value) return
    const { keep, leaveOut, conditions } = asked.value
    const body = { keep, leaveOut, conditions, sku: { provider: found.provider, sku: found.sku }, way: way.key, resources, isChosen }
    view.value = await client.send('POST', 'savings/otherwise/choices', body, otherwiseView)
    told.value = { resources: resources.length, isChosen }
  }
  return { view, opened, told, load, choose }
})

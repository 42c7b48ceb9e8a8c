import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import {
  orderRunWhole,
  standingOrders,
  type OrderDefinition,
  type OrderRunWhole,
  type StandingOrders,
} from '../../shared/contracts/standing-orders'
import { client } from '../utils/client'

const LOOK_EVERY_MS = 700

/** Standing orders with their runs; looked at again while one runs. */
export const useStandingOrders = defineStore('standing-orders', () => {
  const state = ref<StandingOrders | null>(null)
  const chosenId = ref<string | null>(null)
  const run = ref<OrderRunWhole | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  /** The newest run before one was asked for: until another one has ended, it is waited for. */
  let waitsBeyond: { order: string; run: number } | null = null

  const chosen = computed(() => state.value?.orders.find(({ id }) => id === chosenId.value) ?? null)
  const isRunning = computed(() => waiting.value || (chosen.value?.runs.some(({ state: of }) => of === 'running') ?? false))
  const waiting = ref(false)

  async function take(next: Promise<StandingOrders>) {
    state.value = await next
    await follow()
  }
  const load = () => take(client.get('standing-orders', standingOrders))

  /** Looks again while a run is awaited or under way, and shows the newest when it has ended. */
  async function follow() {
    clearTimeout(timer)
    const newest = chosen.value?.runs[0]
    const isAwaited = waiting.value
    if (waitsBeyond && waitsBeyond.order === chosenId.value && newest && newest.id > waitsBeyond.run && newest.state !== 'running') {
      waitsBeyond = null
      waiting.value = false
    }
    const shown = run.value
    // an older one that somebody looks at stays open, but for a run that they have begun
    const isOver = isAwaited && !waiting.value
    if (newest && (shown === null || shown.order !== newest.order || isOver)) await openRun(newest.id)
    else if (shown?.state === 'running') await openRun(shown.id)
    if (isRunning.value) timer = setTimeout(() => void load().catch(() => {}), LOOK_EVERY_MS)
  }
  async function openRun(id: number) {
    run.value = await client.get(`standing-orders/runs/${id}`, orderRunWhole)
  }
  async function choose(id: string | null) {
    chosenId.value = id
    run.value = null
    waiting.value = false
    waitsBeyond = null
    await follow()
  }
  async function save(id: string | null, definition: OrderDefinition) {
    const before = new Set(state.value?.orders.map(one => one.id))
    await take(
      id === null
        ? client.send('POST', 'standing-orders', definition, standingOrders)
        : client.send('PUT', `standing-orders/${id}`, definition, standingOrders),
    )
    if (id === null) await choose(state.value!.orders.find(one => !before.has(one.id))!.id)
  }
  async function remove(id: string) {
    chosenId.value = null
    run.value = null
    await take(client.send('DELETE', `standing-orders/${id}`, {}, standingOrders))
  }
  const turn = (id: string, isOn: boolean) => take(client.send('PUT', `standing-orders/${id}/on`, { isOn }, standingOrders))
  async function begin(id: string, isDry: boolean, beyondBrake = false) {
    waitsBeyond = { order: id, run: chosen.value?.runs[0]?.id ?? 0 }
    waiting.value = true
    try {
      await take(client.send('POST', `standing-orders/${id}/runs`, { isDry, beyondBrake }, standingOrders))
    } catch (error) {
      waitsBeyond = null
      waiting.value = false
      throw error
    }
  }
  const stop = (id: string) => take(client.send('POST', `standing-orders/${id}/stop`, {}, standingOrders))
  const except = (id: string, resourceId: string, reason: string, until: string | null) =>
    take(client.send('POST', `standing-orders/${id}/exceptions`, { resourceId, reason, until }, standingOrders))
  const takeException = (id: string, resourceId: string) =>
    take(client.send('DELETE', `standing-orders/${id}/exceptions?resource=${encodeURIComponent(resourceId)}`, {}, standingOrders))
  /** Sets the tag of a person; the run then shows it as done. */
  async function settle(id: string, resourceId: string, person: string) {
    await take(client.send('POST', `standing-orders/${id}/choices`, { resourceId, person }, standingOrders))
    if (run.value) await openRun(run.value.id)
  }
  const leave = () => clearTimeout(timer)
  return {
    state,
    chosen,
    chosenId,
    run,
    isRunning,
    load,
    choose,
    openRun,
    save,
    remove,
    turn,
    begin,
    stop,
    except,
    takeException,
    settle,
    leave,
  }
})

<script setup lang="ts">
import { madeOn } from '../../../core/standing-order/found'
import type { ItemState, OrderRunWhole, RunItem, StandingOrderView } from '../../../shared/contracts/standing-orders'

/** What a run found, what wants somebody first: each with what it is, what was or would be done and why, and its evidence. */
const { order, run } = defineProps<{ order: StandingOrderView; run: OrderRunWhole }>()
const orders = useStandingOrders()
const { attempt, problem, busy } = useAttempt()
const only = ref<ItemState | null>(null)
const open = ref<string | null>(null)
const excepting = ref<string | null>(null)
const reason = ref('')
const until = ref('')
const sorted = computed(() => run.items.toSorted((a, b) => itemOrder.indexOf(a.state) - itemOrder.indexOf(b.state)))
const states = computed(() => itemOrder.flatMap(state => run.counts.filter(one => one.state === state)))
const shown = computed(() => sorted.value.filter(({ state }) => only.value === null || state === only.value))
watch(
  () => run.id,
  () => {
    only.value = null
    open.value = null
  },
)
const personName = (id: string) => orders.state!.people.find(one => one.id === id)?.name ?? id
const costs = ({ found }: RunItem) => found.costOfMonth.map(one => `${money(one.amount, one.currency)} ${one.currency}`).join(', ') || '–'
const made = ({ found }: RunItem) => {
  const day = madeOn(found)
  if (day) return dayText(day)
  return found.firstDay ? `before ${dayText(found.firstDay)}` : '–'
}
/** Whether a person chooses here: of a run that is real and of what the order is now. */
const canChoose = (item: RunItem) => item.state === 'asked' && item.key !== null && run.isCurrent && order.isTried
const others = (item: RunItem) =>
  orders
    .state!.people.filter(({ id }) => !item.candidates.some(({ person }) => person === id))
    .map(({ id, name }) => ({ value: id, label: name }))
function ask(id: string) {
  excepting.value = excepting.value === id ? null : id
  reason.value = ''
  until.value = ''
}
async function except(id: string) {
  if (await attempt(() => orders.except(order.id, id, reason.value, until.value || null))) excepting.value = null
}
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <div class="states" role="group" aria-label="show only">
    <button
      v-for="one in states"
      :key="one.state"
      class="button"
      :class="{ main: only === one.state }"
      :aria-pressed="only === one.state"
      @click="only = only === one.state ? null : one.state"
    >
      {{ count(one.count) }} {{ one.state }}
    </button>
  </div>
  <div class="scroll" tabindex="0" role="group" aria-label="what was found">
    <table class="ledger">
      <thead>
        <tr>
          <th>resource</th>
          <th>made</th>
          <th class="n">last 30 days</th>
          <th>outcome</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <template v-for="item in shown" :key="`${item.found.resourceId} ${item.found.saving?.id ?? ''}`">
          <tr>
            <td>
              <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: item.found.resourceId } }">{{
                item.found.name
              }}</NuxtLink>
              <div class="minor">{{ [item.found.type, item.found.subAccountName, item.found.region].filter(Boolean).join(' · ') }}</div>
            </td>
            <td class="made">{{ made(item) }}</td>
            <td class="n">{{ costs(item) }}</td>
            <td>
              <b :class="{ warn: wantsSomebody.has(item.state), good: item.state === 'done' }">{{ item.state }}</b><template
                v-if="item.does"
                >: {{ item.does }}</template
              >
              <div class="minor">{{ item.said ?? item.because }}</div>
              <div v-if="canChoose(item)" class="choice" role="group" :aria-label="`who made ${item.found.name}`">
                <button
                  v-for="one in item.candidates"
                  :key="one.person"
                  class="button"
                  :disabled="busy"
                  @click="attempt(() => orders.settle(order.id, item.found.resourceId, one.person))"
                >
                  {{ personName(one.person) }}
                </button>
                <SentenceChoice
                  label="somebody else"
                  :options="others(item)"
                  text="somebody else…"
                  @choose="person => attempt(() => orders.settle(order.id, item.found.resourceId, person))"
                />
              </div>
              <NuxtLink
                v-if="item.state === 'asked' && item.found.saving"
                class="link"
                :to="{ path: '/savings', query: { one: item.found.saving.id } }"
                >Open it in Savings</NuxtLink
              >
            </td>
            <td class="acts">
              <button
                class="link"
                :aria-expanded="open === item.found.resourceId"
                @click="open = open === item.found.resourceId ? null : item.found.resourceId"
              >
                Evidence
              </button>
              <button class="link" :aria-expanded="excepting === item.found.resourceId" @click="ask(item.found.resourceId)">Except…</button>
            </td>
          </tr>
          <tr v-if="open === item.found.resourceId">
            <td colspan="5"><RunEvidence :item="item" /></td>
          </tr>
          <tr v-if="excepting === item.found.resourceId">
            <td colspan="5">
              <form class="inset row" @submit.prevent="except(item.found.resourceId)">
                <label>Reason <input v-model="reason" class="field" required maxlength="500" /></label>
                <label>until (empty: for good) <input v-model="until" class="field" type="date" /></label>
                <button class="button main" type="submit" :disabled="busy">Save the exception</button>
                <button class="button" type="button" @click="excepting = null">Cancel</button>
              </form>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.states,
.choice,
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.states {
  margin: 6px 0;
}
.made {
  white-space: nowrap;
}
.acts {
  white-space: nowrap;
  text-align: right;
}
.acts .link + .link {
  margin-left: 10px;
}
</style>

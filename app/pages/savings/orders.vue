<script setup lang="ts">
import type { OrderDefinition } from '../../../shared/contracts/standing-orders'

/** Rules that find resources and act on them: what each finds and does, and what came of its runs. */
const orders = useStandingOrders()
const data = useData()
const route = useRoute()
const router = useRouter()
const { attempt, problem, busy } = useAttempt()
useHead({ title: 'Standing orders · Rain Barrel' })
const asked = computed(() => (typeof route.query.one === 'string' ? route.query.one : null))
/** What is being written: a new order, or a change of the chosen one. */
const editing = ref<'new' | 'chosen' | null>(null)
onMounted(() => {
  void data.load()
  void attempt(async () => {
    await orders.load()
    await orders.choose(asked.value ?? orders.state?.orders[0]?.id ?? null)
  })
})
onUnmounted(() => orders.leave())
watch(asked, id => {
  if (orders.state && id !== orders.chosenId) void attempt(() => orders.choose(id))
})
watch(
  () => orders.chosenId,
  id => {
    editing.value = null
    if (id !== asked.value) void router.replace({ query: { one: id ?? undefined } })
  },
)
async function save(definition: OrderDefinition) {
  const id = editing.value === 'chosen' ? orders.chosenId : null
  if (await attempt(() => orders.save(id, definition))) editing.value = null
}
const on = computed(() => orders.state?.orders.filter(({ isOn }) => isOn).length ?? 0)
const untried = computed(() => orders.state?.orders.filter(({ isTried }) => !isTried).length ?? 0)
</script>

<template>
  <div class="page">
    <PlaceNav place="Savings" />
    <h1 class="sentence">
      <template v-if="!orders.state">{{ problem ? 'Standing orders' : 'Reading the standing orders…' }}</template>
      <template v-else-if="!orders.state.orders.length">No standing order yet.</template>
      <template v-else
        >{{ count(orders.state.orders.length) }} standing {{ orders.state.orders.length === 1 ? 'order' : 'orders' }}:
        {{ count(on) }} on<template v-if="untried">, {{ count(untried) }} to be tried in a dry run first</template>.</template
      >
    </h1>
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="orders.state" class="columns">
      <div>
        <OrderList />
        <button class="button" :aria-expanded="editing === 'new'" @click="editing = editing === 'new' ? null : 'new'">New order…</button>
      </div>
      <div class="one">
        <OrderEditor v-if="editing === 'new'" :busy="busy" @save="save" @cancel="editing = null" />
        <template v-else-if="orders.chosen">
          <OrderEditor
            v-if="editing === 'chosen'"
            :key="orders.chosen.id"
            :order="orders.chosen"
            :busy="busy"
            @save="save"
            @cancel="editing = null"
          />
          <ChosenOrder v-else :order="orders.chosen" @change="editing = 'chosen'" />
          <OrderExceptions :order="orders.chosen" />
          <OrderRuns :order="orders.chosen" />
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 24px;
  margin-top: 10px;
}
.one {
  min-width: 0;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

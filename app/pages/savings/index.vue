<script setup lang="ts">
import { groupings, orders, type GroupedBy, type ListOrder } from '../../../core/opportunity/grouped'
import { stateChoices, type StateChoice } from '../../utils/savings-list'

const savings = useSavings()
const session = useSession()
const route = useRoute()
const router = useRouter()
useHead({ title: 'Savings · Rain Barrel' })
onMounted(() => savings.load())

const oneOf = <T extends string>(value: unknown, all: readonly T[], usual: T): T => all.find(one => one === value) ?? usual
const textOf = (value: unknown) => (typeof value === 'string' && value ? value : null)
watch(
  () => route.query,
  ({ kind, centre, state, by, order }) => {
    Object.assign(savings.narrowing, {
      detector: textOf(kind),
      centre: textOf(centre),
      state: oneOf<StateChoice>(
        state,
        stateChoices.map(({ value }) => value),
        'open',
      ),
      by: oneOf<GroupedBy>(by, groupings, 'detectorLabel'),
      order: oneOf<ListOrder>(order, orders, 'per hour'),
    })
  },
  { immediate: true },
)
const go = (change: Record<string, string | undefined>) => router.push({ query: { ...route.query, ...change } })
const opened = ref<string | null>(null)
/** A block of the curve opens what it stands for, in its group. */
function openOne(id: string) {
  opened.value = savings.groups.find(({ rows }) => rows.some(row => row.id === id))?.key ?? null
  savings.choose(id)
}
// each has an address of its own: it can be sent, and opens what it was sent for, in whatever state that is by now
watch(
  [() => textOf(route.query.one), () => savings.state !== null],
  ([asked, isRead]) => {
    if (!isRead || asked === savings.chosenId) return
    if (asked === null) savings.choose(null)
    else openOne(asked)
  },
  { immediate: true },
)
watch(
  () => savings.chosenId,
  id => {
    if (id !== textOf(route.query.one)) void router.replace({ query: { ...route.query, one: id ?? undefined } })
  },
)
const tickedRows = computed(() => savings.listed.filter(({ id }) => savings.ticked.includes(id)))
</script>

<template>
  <div class="page">
    <PlaceNav place="Savings" />
    <p v-if="!savings.state && !savings.problem" class="note" role="status">Looking for what can be saved…</p>
    <ProblemNote v-if="savings.problem" :problem="savings.problem" :retry="savings.state ? undefined : () => savings.load()" />
    <template v-if="savings.state">
      <SavingsSentence @go="go" />
      <div class="figures">
        <span>
          <span class="big">{{ money(savings.saved, savings.currency) }} {{ currencySign(savings.currency) }}</span
          ><span class="label"
            >a month, in {{ count(savings.listed.length) }} {{ savings.listed.length === 1 ? 'opportunity' : 'opportunities' }}</span
          >
        </span>
        <span v-if="savings.notCounted.length" class="minor"
          ><b>{{ money(savings.notCountedSum, savings.currency) }} {{ currencySign(savings.currency) }}</b> not counted twice</span
        >
        <span v-if="savings.state.whole.unrated.length" class="warn"
          >{{ count(savings.state.whole.unrated.length) }} without a rate into {{ savings.currency }}: in no total</span
        >
        <button v-if="session.seesAll && savings.state.connected" class="link" :disabled="savings.looking" @click="savings.look()">
          {{ savings.looking ? 'Looking…' : 'Refresh' }}
        </button>
        <span v-if="savings.ledgerSums.length" class="sofar"
          >so far
          <template v-for="({ currency, promised, seen }, i) in savings.ledgerSums" :key="currency">
            {{ i ? ' and ' : '' }}<b>{{ money(promised, currency) }}</b> promised ·
            <b class="good">{{ money(seen, currency) }} {{ currencySign(currency) }}</b> seen on the bill</template
          ></span
        >
      </div>
      <div class="columns" :class="{ open: savings.chosen }">
        <div class="body">
          <SavingsCurve :opened="opened" @open="openOne" />
          <SavingsTable :opened="opened" @open="key => (opened = key)" />
          <div v-if="tickedRows.length || savings.batch" class="ticked" role="group" aria-label="with those chosen">
            <template v-if="tickedRows.length">
              <span class="note">{{ count(tickedRows.length) }} chosen:</span>
              <DecisionBar :rows="tickedRows" />
              <HandOver :rows="tickedRows" />
            </template>
            <ActTogether :rows="tickedRows" />
          </div>
          <SavingsLists />
          <SavingsLedger />
          <FinderList />
          <ConnectionBar v-if="session.seesAll" @delivered="savings.load()" />
        </div>
        <OpportunityMargin v-if="savings.chosen" :opportunity="savings.chosen" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.sofar {
  margin-left: auto;
  color: var(--ink-2);
}
.body {
  min-width: 0;
}
.ticked {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: flex-start;
  background: var(--paper-raised);
  border: 1px solid var(--act);
  border-radius: 4px;
  padding: 8px 12px;
  margin-top: 8px;
}
/* what is looked through before it is approved covers no row of the list */
.ticked:has(:deep(.review)) {
  position: static;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 24px;
  margin-top: 6px;
}
.columns.open {
  grid-template-columns: minmax(0, 1fr) 370px;
}
@media (max-width: 1000px) {
  .columns.open {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { isAboveZero } from '../../../core/money/amount-text'
import { otherwiseKinds } from '../../../core/opportunity/otherwise/offer'

/** What things that are charged for would cost otherwise: by SKU, way by way, for all resources on it or for some. */
const otherwise = useOtherwise()
const data = useData()
const route = useRoute()
const router = useRouter()
const { attempt, problem, busy } = useAttempt()
useHead({ title: 'What it would cost otherwise · Rain Barrel' })

const textOf = (value: unknown) => (typeof value === 'string' && value ? value : null)
const scope = computed(() => scopeIn(route.query))
const isNarrowed = computed(() => scopeText(scope.value) !== '')
const load = () =>
  attempt(() => {
    const [provider, sku] = [textOf(route.query.provider), textOf(route.query.sku)]
    return otherwise.load({
      ...scope.value,
      sku: provider !== null && sku !== null ? { provider, sku } : null,
      way: textOf(route.query.way),
    })
  })
watch([() => route.fullPath, () => data.facts?.revision], () => route.path === '/savings/otherwise' && void load(), { immediate: true })

const found = computed(() => otherwise.view?.found ?? null)
const sign = computed(() => (found.value ? currencySign(found.value.currency) : ''))
/** What saves most of what asks nothing of the thing itself: only that it goes on. */
const best = computed(
  () =>
    found.value?.ways
      .filter(({ share, asks, kind }) => share !== null && share < 1 && (!asks.length || kind === 'way to pay'))
      .sort((a, b) => a.share! - b.share!)[0],
)
const groups = computed(() =>
  otherwiseKinds.flatMap(kind => {
    const ways = found.value?.ways.filter(way => way.kind === kind) ?? []
    return ways.length ? [{ kind, ways }] : []
  }),
)
const go = (change: Record<string, string | undefined>) => router.push({ query: { ...route.query, ...change } })
const chooseSku = (one: { provider: string; sku: string }) => go({ provider: one.provider, sku: one.sku, way: undefined })
const open = (key: string) =>
  go({ provider: found.value!.provider, sku: found.value!.sku, way: otherwise.opened?.key === key ? undefined : key })
const isSame = (one: { provider: string; sku: string }) => one.provider === found.value?.provider && one.sku === found.value?.sku
const things = (n: number) => `${count(n)} ${n === 1 ? 'resource' : 'resources'}`
</script>

<template>
  <div class="page">
    <PlaceNav place="Savings" />
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="!otherwise.view && !problem" class="note" role="status">Pricing what runs…</p>
    <template v-if="otherwise.view">
      <h1 v-if="found" class="sentence">
        <b class="named">{{ found.words }}</b> is charged for {{ things(found.resources) }}, which
        {{ found.resources === 1 ? 'costs' : 'cost' }} <b class="named">{{ money(found.now, found.currency) }} {{ sign }}</b> a month.
        <template v-if="best"
          >{{ best.kind === 'way to pay' ? 'Paid as' : 'As' }} <b class="named">{{ best.to }}</b>
          {{ best.resources < found.resources ? `${count(best.resources)} of them` : found.resources === 1 ? 'it' : 'they' }} would cost
          <b class="named nowrap">{{ money(best.saving!, found.currency) }} {{ sign }}</b> less<template v-if="best.asks.length"
            >, if {{ best.asks[0] }}</template
          >.</template
        ><template v-else>Nothing costs less without asking for something.</template>
      </h1>
      <h1 v-else class="sentence">Nothing here is charged under a price of a rate card.</h1>
      <p class="under">
        <span v-if="isNarrowed"
          >of {{ scopeText(scope) }}; <NuxtLink class="link" to="/savings/otherwise">look at all charges</NuxtLink></span
        ><span v-else>of all charges</span><span>priced from what was used in the last 30 days, for a month of 730 hours</span
        ><span>own provider with present discounts, others at their list prices; moving data is not priced</span>
      </p>
      <div v-if="found" class="columns" :class="{ open: otherwise.opened }">
        <nav class="skus" aria-label="what is charged for">
          <h2 class="heading">Charged for</h2>
          <button
            v-for="one in otherwise.view.skus"
            :key="`${one.provider} ${one.sku}`"
            class="sku"
            :class="{ on: isSame(one) }"
            :aria-current="isSame(one)"
            @click="chooseSku(one)"
          >
            <span class="words">{{ one.words }}</span><span class="amount"
              >{{ money(one.monthly, one.currency) }} {{ currencySign(one.currency) }}</span
            >
            <span class="minor">{{ one.provider }}, {{ things(one.resources) }}</span>
          </button>
          <p v-if="otherwise.view.more" class="note">{{ count(otherwise.view.more) }} more cost less. Narrow them down under Spend.</p>
        </nav>
        <div class="body">
          <div class="scroll" tabindex="0" role="group" aria-label="what it would cost otherwise">
            <table class="ledger">
              <thead>
                <tr>
                  <th>instead</th>
                  <th>what has to hold</th>
                  <th class="n">a month</th>
                  <th class="n">less than now</th>
                  <th class="bars" aria-label="then, as a part of now" />
                  <th class="n">resources</th>
                </tr>
              </thead>
              <tbody v-for="group in groups" :key="group.kind">
                <tr>
                  <th colspan="6" scope="rowgroup" class="kind">{{ capitalised(group.kind) }}</th>
                </tr>
                <tr v-for="way in group.ways" :key="way.key" class="acts" :class="{ chosen: otherwise.opened?.key === way.key }">
                  <td>
                    <button class="link" :aria-expanded="otherwise.opened?.key === way.key" @click="open(way.key)">{{ way.to }}</button>
                    <span v-if="way.chosen" class="good"> chosen for {{ count(way.chosen) }}</span
                    ><span class="minor gives">{{ way.gives }}</span>
                  </td>
                  <td class="asks">
                    <span v-for="ask in way.asks.slice(0, 3)" :key="ask">{{ ask }}</span><span v-if="way.asks.length > 3" class="minor"
                      >and {{ count(way.asks.length - 3) }} more</span
                    ><span v-for="lack in way.lacks" :key="lack" class="warn">not priced: {{ lack }}</span
                    ><span v-if="!way.resources" class="minor">{{ way.without.reasons[0] }}</span>
                  </td>
                  <td class="n">{{ way.resources ? money(way.then, found.currency) : 'not offered' }}</td>
                  <td class="n" :class="{ good: way.saving !== null && isAboveZero(way.saving) }">
                    {{ way.saving === null ? '' : money(way.saving, found.currency) }}
                  </td>
                  <td class="bars">
                    <span
                      v-if="way.share !== null"
                      class="bar"
                      :class="{ dearer: way.share > 1 }"
                      :style="{ width: `${Math.min(way.share, 1.5) * 60}px` }"
                    />
                  </td>
                  <td class="n">
                    {{ count(way.resources) }}<template v-if="way.without.resources"> of {{ count(found.resources) }}</template
                    ><span v-if="way.resources && way.without.resources" class="minor gives">now {{ money(way.now, found.currency) }}</span>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <p v-if="found.left.length" class="note">
            Not priced here, or not wholly:
            <template v-for="(one, i) in found.left.slice(0, 5)" :key="one.resourceId"
              >{{ i ? '; ' : '' }}{{ one.resourceName }} ({{ one.why }})</template
            ><template v-if="found.left.length > 5"> and {{ count(found.left.length - 5) }} more</template>.
          </p>
        </div>
        <OtherwiseMargin
          v-if="otherwise.opened"
          :way="otherwise.opened"
          :currency="found.currency"
          :busy="busy"
          :attempt="attempt"
          @close="open(otherwise.opened.key)"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 24px;
  margin-top: 6px;
}
.columns.open {
  grid-template-columns: 200px minmax(0, 1fr) 360px;
}
.skus {
  display: flex;
  flex-direction: column;
  max-height: 78vh;
  overflow-y: auto;
}
.sku {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  text-align: left;
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
  border-radius: 3px;
  cursor: pointer;
}
.sku:hover,
.sku:focus-visible {
  background: var(--paper-raised);
}
.sku .minor {
  grid-column: 1 / -1;
}
.sku.on {
  background: var(--act-soft);
}
.nowrap {
  white-space: nowrap;
}
.words {
  overflow-wrap: anywhere;
}
.amount {
  text-align: right;
}
.kind {
  text-align: left;
  padding-top: 14px;
  color: var(--ink-3);
  font-weight: 500;
}
.gives {
  display: block;
}
.asks span {
  display: block;
}
.bars {
  width: 96px;
}
.bars {
  position: relative;
}
/* where it would cost what it costs now */
td.bars::after {
  content: '';
  position: absolute;
  left: 68px;
  top: 6px;
  bottom: 6px;
  border-left: 1px solid var(--line-strong);
}
.bar {
  display: inline-block;
  height: 8px;
  background: var(--act);
  border-radius: 1px;
}
.bar.dearer {
  background: var(--bad);
}
@media (max-width: 1000px) {
  .columns,
  .columns.open {
    grid-template-columns: minmax(0, 1fr);
  }
  .skus {
    max-height: 260px;
  }
}
</style>

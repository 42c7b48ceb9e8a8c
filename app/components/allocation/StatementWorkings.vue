<script setup lang="ts">
import { shareWorking } from '../../../core/allocation/share-working'
import { traceOf, type TracedStatement } from '../../../core/allocation/trace'
import { conditionsWords } from '../../../core/allocation/rule-words'
import { minorDecimals } from '../../../core/money/currency'
import type { Statement } from '../../../shared/contracts/allocation'

/** How an amount of a statement came about: a share by its pool, base and rounding; what is direct by rules, quantities and prices. */
const { line, of } = defineProps<{ line: Statement['lines'][number]; of: TracedStatement }>()
const allocation = useAllocation()
const closings = useClosings()
const session = useSession()
const words = (id: string) => {
  const rule = allocation.plan?.rules.find(one => one.id === id)
  return rule ? conditionsWords(rule) : id
}
const share = computed(() => {
  if (line.kind !== 'share') return null
  const intoPool = new Set(allocation.plan?.rules.filter(({ target }) => target === line.poolId).map(({ id }) => id))
  const put = (allocation.settled?.catches ?? []).filter(({ rule, currency }) => intoPool.has(rule) && currency === of.currency)
  const named = put.map(({ rule, amount }) => ({ words: words(rule), amount }))
  return shareWorking(line, named, of.currency, minorDecimals(of.currency))
})
const traced = line.kind === 'direct' ? useTracedCharges(traceOf(line, of, session.seesAll)) : null
const found = computed(() => traced?.found.value ?? null)
const problem = computed(() => traced?.problem.value ?? null)
/** Charges are traced by the rules that are saved, as they are known now: what is drafted or was closed may be otherwise. */
const since = computed(() =>
  allocation.draft
    ? 'they follow the saved rules'
    : closings.stateOf(of.month)
      ? 'the month was closed before'
      : 'loaded since it was added up',
)
const difference = computed(() => (found.value ? subtractTexts(found.value.total, line.amount) : '0'))
</script>

<template>
  <div class="workings" role="group" aria-label="Workings">
    <WorkingsTree v-if="share" :working="share" :currency="of.currency" />
    <p v-else-if="line.kind === 'share'" class="minor">
      Divided {{ line.label }}.
      {{ line.ofPool === null ? 'The base and the rest of the pool are for those who see pool totals.' : 'Closed before bases were kept.' }}
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="traced && !found && !problem" class="minor" role="status">Adding up its charges…</p>
    <table v-if="found" class="ledger">
      <tbody>
        <tr v-for="rule in found.rules" :key="String(Object.values(rule.values)[0])">
          <td>by the rule {{ words(Object.values(rule.values)[0] ?? '') }}</td>
          <td class="n">{{ money(rule.amount, of.currency) }}</td>
        </tr>
        <PricePartRows :parts="found.parts" :left="found.left" :total="found.total" :currency="of.currency" />
      </tbody>
    </table>
    <p v-if="difference !== '0'" class="warn">
      The charges come to {{ signedMoney(difference, of.currency) }} against the statement: {{ since }}.
    </p>
  </div>
</template>

<style scoped>
.workings {
  border-left: 1px solid var(--line-strong);
  padding: 2px 0 6px 10px;
  font-size: 12px;
}
</style>

<script setup lang="ts">
import { traceOf } from '../../../core/allocation/trace'
import type { Statement } from '../../../shared/contracts/allocation'

/** What a cost centre bears of a month; each line leads to its charges, by the rules that put them there. */
const props = defineProps<{ centre: string; currency: string; month: string }>()
const allocation = useAllocation()
const statement = computed(
  () => allocation.settled!.statements.find(s => s.centre === props.centre && s.currency === props.currency) ?? null,
)
const children = computed(() => allocation.tree.filter(c => c.parent === props.centre))
const amounts = computed(() => allocation.rolledUp(props.currency))
const session = useSession()
/** Spend narrowed to what is behind a line; null where that is not for who asks: what lies in a pool. */
function behind(line: Statement['lines'][number]) {
  if (line.kind === 'share' && !session.seesAll) return null
  const { measure, tree } = allocation.question!
  const of = { centre: props.centre, currency: props.currency, month: props.month, measure, tree: tree ?? null }
  return { path: '/spend', query: writeSentence({ ...readSentence({}), ...traceOf(line, of, session.seesAll) }) }
}
const share = (part: string, of: string) => percent(part, of)
</script>

<template>
  <section aria-label="Statement">
    <div class="top">
      <h2 class="heading">Statement · {{ allocation.targetName(centre) }}</h2>
      <span class="minor">{{ monthText(month) }}, draft</span>
    </div>
    <table class="ledger" data-testid="statement">
      <tbody>
        <template v-if="statement">
          <tr v-for="(line, index) in statement.lines" :key="index">
            <td v-if="line.kind === 'direct'">
              <NuxtLink class="link" :to="behind(line)!">{{ valueLabel('ServiceName', line.service) }}</NuxtLink>
            </td>
            <td v-else>
              <NuxtLink v-if="behind(line)" class="link" :to="behind(line)!">{{ line.pool }}</NuxtLink><template v-else>{{
                line.pool
              }}</template
              >, {{ line.ofPool === null ? '' : `${share(line.amount, line.ofPool)} of ${money(line.ofPool, currency)}, ` }}{{ line.label
              }}<br v-if="line.note" /><span v-if="line.note" class="warn">{{ line.note }}</span>
            </td>
            <td class="n">{{ money(line.amount, currency) }}</td>
          </tr>
        </template>
        <tr v-for="child in children" :key="child.id">
          <td>{{ child.name }}</td>
          <td class="n">{{ money(amounts.get(child.id)!.total, currency) }}</td>
        </tr>
        <tr v-if="!statement && !children.length">
          <td>Nothing landed here in {{ currency }}.</td>
          <td class="n">–</td>
        </tr>
        <tr class="total">
          <td>{{ monthText(month) }}</td>
          <td class="n">{{ money(amounts.get(centre)!.total, currency) }} {{ currency }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-top: 18px;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
</style>

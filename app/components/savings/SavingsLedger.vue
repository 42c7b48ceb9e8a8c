<script setup lang="ts">
import { groupLedger, ledgerGroupings, ledgerTotals, type LedgerGroupedBy } from '../../../core/opportunity/ledger-groups'

import { monthStart } from '../../../core/time/day'
import { SETTLING_DAYS, settlingSince } from '../../../core/time/settling'

/** What was promised beside what the bill shows since. */
const savings = useSavings()
/** So many lines are read one by one. */
const MANY = 8
const chosenBy = ref<LedgerGroupedBy | null>(null)
const by = computed(() => chosenBy.value ?? (savings.ledger.length > MANY ? 'detectorLabel' : 'each'))
const byWords: Record<LedgerGroupedBy, string> = {
  detectorLabel: 'by kind',
  owner: 'by owner',
  month: 'by month in which it was done',
  each: 'one by one',
}
const byOptions = ledgerGroupings.map(value => ({ value, label: byWords[value] }))
const groups = computed(() => groupLedger(savings.ledger, by.value))
const labelOf = (label: string | null) => (label === null ? 'nobody’s' : by.value === 'month' ? monthText(`${label}-01`) : label)
/** From which day on what the bill shows may still change. */
const preliminary = computed(() => {
  const last = savings.ledger
    .map(({ seenTo }) => seenTo ?? '')
    .sort()
    .at(-1)
  return last ? monthStart(settlingSince(last)) : null
})
const openedGroup = ref<string | null>(null)
const opened = ref<string | null>(null)
const toggle = (id: string) => (opened.value = opened.value === id ? null : id)
const isShown = (key: string) => by.value === 'each' || openedGroup.value === key
const sumOf = (id: string) => ledgerTotals(savings.ledger.filter(line => line.id === id))[0]!
</script>

<template>
  <section v-if="savings.ledger.length" aria-label="Savings ledger" class="ledger-section" data-testid="ledger">
    <h2 class="heading">
      Savings ledger,
      <span class="sentence by">
        <SentenceChoice
          label="ledger grouped"
          :options="byOptions"
          :chosen="by"
          :text="byWords[by]"
          @choose="value => (chosenBy = value)"
        />
      </span>
    </h2>
    <table class="ledger">
      <thead>
        <tr>
          <th>done</th>
          <th>what</th>
          <th class="n">promised a month</th>
          <th class="n">promised until now</th>
          <th class="n">seen on the bill</th>
          <th>seen of promised</th>
          <th>bill to</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="group in groups" :key="group.key">
          <tr v-if="by !== 'each'" class="acts group">
            <td>{{ count(group.lines.length) }} {{ group.lines.length === 1 ? 'deed' : 'deeds' }}</td>
            <td>
              <button
                class="link"
                :aria-expanded="openedGroup === group.key"
                @click="openedGroup = openedGroup === group.key ? null : group.key"
              >
                {{ openedGroup === group.key ? '▾' : '▸' }} {{ labelOf(group.label) }}
              </button>
            </td>
            <td class="n">{{ money(group.promisedMonthly, group.currency) }}</td>
            <td class="n">{{ money(group.promised, group.currency) }}</td>
            <td class="n good">{{ money(group.seen, group.currency) }}</td>
            <td>
              <SeenOfPromised :promised="group.promised" :seen="group.seen" />
            </td>
            <td>
              <span v-if="group.unseen" class="minor">{{ count(group.unseen) }} not yet</span>
              <span v-if="group.again" class="warn">{{ count(group.again.resources) }} may be back</span>
            </td>
          </tr>
          <template v-if="isShown(group.key)">
            <template v-for="line in group.lines" :key="line.id">
              <tr class="acts">
                <td>
                  {{ dayText(line.doneAt) }}<br /><span class="minor">{{ line.doneAt.slice(11, 16) }}, {{ line.approvedBy }}</span
                  ><template v-if="line.undoneAt"
                    ><br /><span class="warn">undone {{ dayText(line.undoneAt) }}</span></template
                  >
                </td>
                <td>
                  <button class="link" :disabled="!line.workings?.length" @click="toggle(line.id)">{{ line.resourceName }}</button>
                  <p v-for="one in line.snapshots" :key="one.resourceId" class="again minor">
                    snapshot kept:
                    <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: one.resourceId } }">{{ one.name }}</NuxtLink>,
                    {{ money(one.amount, line.currency) }} {{ line.currency }} until now
                  </p>
                  <p v-for="one in line.again" :key="one.resourceId" class="again minor">
                    may be back as
                    <NuxtLink class="link" :to="{ path: '/spend/resource', query: { id: one.resourceId } }">{{ one.name }}</NuxtLink>
                    in {{ one.subAccount }}: {{ money(one.amount, line.currency) }} {{ line.currency }} since {{ dayText(one.since) }}
                  </p>
                </td>
                <td class="n">{{ money(line.promisedMonthly, line.currency) }}</td>
                <td class="n">{{ line.promised === null ? '–' : money(line.promised, line.currency) }}</td>
                <td class="n good">{{ line.seen === null ? '–' : money(line.seen, line.currency) }}</td>
                <td>
                  <span v-if="line.undoneAt && line.seenTo === null" class="minor">undone before a bill showed it</span>
                  <SeenOfPromised v-else-if="line.seen !== null && line.promised !== null" :promised="line.promised" :seen="line.seen" />
                  <span v-else class="minor">the bill does not reach it yet</span>
                </td>
                <td>{{ line.seenTo ? dayText(line.seenTo) : '–' }}</td>
              </tr>
              <tr v-if="opened === line.id && line.workings?.length">
                <td colspan="7">
                  <LedgerWorkings :line="line" />
                  <PromisedToSeen :sum="sumOf(line.id)" />
                </td>
              </tr>
            </template>
          </template>
        </template>
        <tr v-for="sum in savings.ledgerSums" :key="sum.currency" class="total">
          <td colspan="2">Total</td>
          <td class="n">{{ money(sum.promisedMonthly, sum.currency) }}</td>
          <td class="n">{{ money(sum.promised, sum.currency) }}</td>
          <td class="n">{{ money(sum.seen, sum.currency) }} {{ sum.currency }}</td>
          <td>{{ percent(sum.seen, sum.promised) }}</td>
          <td>
            <span v-if="sum.unseen" class="minor">{{ count(sum.unseen) }} not on the bill yet</span>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-for="sum in savings.ledgerSums" :key="sum.currency">
      <p v-if="sum.snapshots" class="note">
        {{ sum.snapshots.resources === 1 ? 'The snapshot' : `The ${count(sum.snapshots.resources)} snapshots` }} kept of what was deleted
        cost {{ money(sum.snapshots.amount, sum.currency) }} {{ sum.currency }} until now, which is not taken from what is seen.
      </p>
      <p v-if="sum.again" class="note">
        {{ sum.again.resources === 1 ? 'One resource' : `${count(sum.again.resources)} resources` }} charged for the first time since may
        stand in the place of what is gone: {{ money(sum.again.amount, sum.currency) }} {{ sum.currency }} until now, which is not taken
        from what is seen.
      </p>
    </template>
    <p v-if="preliminary" class="note">
      Preliminary from {{ dayText(preliminary) }} on: a billing period may change until {{ SETTLING_DAYS }} days after its end.
    </p>
    <div class="beside">
      <section v-if="savings.ledgerSums.some(({ differences }) => differences.length)" aria-label="From promised to seen">
        <h3 class="heading">From promised to seen</h3>
        <PromisedToSeen v-for="sum in savings.ledgerSums" :key="sum.currency" :sum="sum" />
      </section>
      <BillAndSavings />
    </div>
  </section>
</template>

<style scoped>
.ledger-section {
  margin-top: 20px;
}
.ledger-section .link {
  white-space: nowrap;
}
.by {
  font: inherit;
}
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 48px;
  align-items: flex-start;
  margin-top: 10px;
}
</style>

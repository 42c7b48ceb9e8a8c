<script setup lang="ts">
import type { SavingsGroup } from '../../../core/opportunity/grouped'
import { placesOf, workText, type ListedOpportunity } from '../../utils/savings-list'

/** What can be saved, in groups that open. */
const savings = useSavings()
const { opened } = defineProps<{ opened: string | null }>()
const emit = defineEmits<{ open: [string | null] }>()
const marks = { spotted: '☐', agreed: '◪', 'under way': '◧', done: '☑', measured: '☑', 'set aside': '▭', gone: '☒' } as const
const troubles: Partial<Record<string, string>> = {
  failed: 'last try failed',
  lapsed: 'approval lapsed',
  waiting: 'waits for a second person',
  'not known': 'not known whether done',
}
type Group = SavingsGroup<ListedOpportunity>
const isEach = computed(() => savings.narrowing.by === 'each')
const statesOf = ({ rows }: Group) =>
  placesOf(
    rows.map(({ state }) => state),
    3,
  )
const nobody = computed(
  () => ({ owner: 'nobody', centre: 'no cost centre', subAccountName: 'no sub account' })[savings.narrowing.by as string] ?? 'none',
)
const isTicked = (rows: readonly ListedOpportunity[]) => rows.every(({ id }) => savings.ticked.includes(id))
const insteadOf = (id: string) => savings.state?.whole.notCounted.find(one => one.id === id) ?? null
const nameOf = (id: string) => savings.state?.opportunities.find(one => one.id === id)?.title ?? id
</script>

<template>
  <div v-if="savings.groups.length" class="scroll" tabindex="0" role="group" aria-label="opportunities">
    <table class="ledger" data-testid="opportunities">
      <thead>
        <tr>
          <th class="tick">
            <input
              type="checkbox"
              aria-label="all that are shown"
              :checked="isTicked(savings.listed)"
              @change="
                savings.tick(
                  savings.listed.map(({ id }) => id),
                  ($event.target as HTMLInputElement).checked,
                )
              "
            />
          </th>
          <th>what</th>
          <th>where</th>
          <th>owner</th>
          <th class="n">saves a month, {{ savings.currency }}</th>
          <th class="n">work</th>
          <th>state</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="group in savings.groups" :key="group.key">
          <tr v-if="!isEach" class="acts group" :class="{ chosen: opened === group.key }">
            <td class="tick">
              <input
                type="checkbox"
                :aria-label="`all of ${group.label ?? nobody}`"
                :checked="isTicked(group.rows)"
                @change="
                  savings.tick(
                    group.rows.map(({ id }) => id),
                    ($event.target as HTMLInputElement).checked,
                  )
                "
              />
            </td>
            <td>
              <button class="link" :aria-expanded="opened === group.key" @click="emit('open', opened === group.key ? null : group.key)">
                <span aria-hidden="true" class="turn">{{ opened === group.key ? '▾' : '▸' }}</span> {{ group.label ?? nobody }}
              </button>
            </td>
            <td>
              {{ count(group.rows.length) }} · <span class="minor">{{ placesOf(group.rows.map(row => row.subAccountName)) }}</span>
            </td>
            <td>{{ placesOf(group.rows.map(row => row.owner)) || '–' }}</td>
            <td class="n">
              <template v-if="Number(group.saved)">{{ money(group.saved, savings.currency) }}</template><span v-else class="minor"
                >counted elsewhere</span
              >
            </td>
            <td class="n">{{ group.minutes ? workText(group.minutes) : '–' }}</td>
            <td class="minor">{{ statesOf(group) }}</td>
          </tr>
          <template v-if="isEach || opened === group.key">
            <tr
              v-for="row in group.rows"
              :key="row.id"
              class="acts"
              :class="{ chosen: savings.chosenId === row.id, within: !isEach }"
              :data-id="row.id"
            >
              <td class="tick">
                <input
                  type="checkbox"
                  :aria-label="row.title"
                  :checked="savings.ticked.includes(row.id)"
                  @change="savings.tick([row.id], ($event.target as HTMLInputElement).checked)"
                />
              </td>
              <td>
                <button class="link" :aria-pressed="savings.chosenId === row.id" @click="savings.choose(row.id)">{{ row.title }}</button>
              </td>
              <td>{{ row.subAccountName }} · {{ row.region }}</td>
              <td>
                {{ row.owner ?? '–' }}<span v-if="row.centre" class="minor centre">{{ row.centre }}</span>
              </td>
              <td class="n">
                <template v-if="row.saved !== null">{{ money(row.saved, savings.currency) }}</template>
                <span
                  v-else-if="insteadOf(row.id)"
                  class="minor"
                  :title="`Counted with: ${insteadOf(row.id)!.instead.map(nameOf).join(', ')}`"
                  >{{ money(row.monthlySaving, row.currency) }}, counted elsewhere</span
                >
                <span v-else class="minor">{{ money(row.monthlySaving, row.currency) }} {{ row.currency }}, no rate</span>
              </td>
              <td class="n">{{ workText(row.minutesOfWork) }}</td>
              <td class="state">
                <span aria-hidden="true">{{ marks[row.state] }}</span> {{ row.state
                }}<span v-if="row.action && troubles[row.action.state]" class="bad">, {{ troubles[row.action.state] }}</span
                ><span v-if="row.cameBack" class="bad">, came back</span
                ><span v-if="row.decision?.due && row.state !== 'done' && row.state !== 'measured'" class="minor">
                  due {{ dayText(row.decision.due) }}</span
                >
              </td>
            </tr>
          </template>
        </template>
      </tbody>
    </table>
  </div>
  <p v-else class="note">{{ savings.state?.opportunities.length ? 'No matches.' : 'No savings found.' }}</p>
</template>

<style scoped>
.tick {
  width: 26px;
}
.tick input {
  vertical-align: middle;
}
.state {
  white-space: nowrap;
}
.turn {
  width: 12px;
  color: var(--ink-3);
}
.within td:nth-child(2) {
  padding-left: 28px;
}
.centre {
  margin-left: 8px;
}
</style>

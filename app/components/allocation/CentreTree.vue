<script setup lang="ts">
import type { CostCentre } from '../../../core/allocation/plan'

const props = defineProps<{ currency: string; chosen: string | null }>()
defineEmits<{ choose: [string] }>()
const allocation = useAllocation()
const session = useSession()
const amounts = computed(() => allocation.rolledUp(props.currency))
/** Cost centres are changed on the page by whoever sees the plan; those of a closed month are as they were. */
const mayChange = computed(() => session.seesAll && (allocation.closed === null || !!allocation.draft))
const open = ref<string | null>(null)
const days = ({ from, until }: CostCentre) =>
  [from ? `from ${dayText(from)}` : '', until ? `until before ${dayText(until)}` : ''].filter(Boolean).join(', ')
const owner = (said: string | null) => session.people.find(p => p.id === said)?.name ?? said ?? '–'
</script>

<template>
  <section aria-label="Cost centres">
    <h2 class="heading">Cost centres</h2>
    <table class="ledger">
      <thead>
        <tr>
          <th>centre, with all below it</th>
          <th>owner</th>
          <th class="n">direct</th>
          <th class="n">shared out to it</th>
          <th class="n">total, {{ currency }}</th>
          <th v-if="mayChange"><span class="sr-only">change</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="centre in allocation.tree" :key="centre.id">
          <tr class="acts" :class="{ chosen: chosen === centre.id, branch: centre.depth < 2 }">
            <td :style="{ paddingLeft: `${8 + centre.depth * 18}px` }">
              <button class="name" :aria-pressed="chosen === centre.id" @click="$emit('choose', centre.id)">{{ centre.name }}</button>
              <span v-if="centre.code" class="minor"> {{ centre.code }}</span>
              <span v-if="days(centre)" class="minor"> {{ days(centre) }}</span>
            </td>
            <td class="minor">{{ owner(centre.owner) }}</td>
            <td class="n">{{ money(amounts.get(centre.id)!.direct, currency) }}</td>
            <td class="n">{{ money(amounts.get(centre.id)!.shared, currency) }}</td>
            <td class="n">{{ money(amounts.get(centre.id)!.total, currency) }}</td>
            <td v-if="mayChange" class="n">
              <button
                class="link"
                :aria-expanded="open === centre.id"
                :aria-label="`change ${centre.name}`"
                @click="open = open === centre.id ? null : centre.id"
              >
                Change
              </button>
            </td>
          </tr>
          <tr v-if="mayChange && open === centre.id">
            <td colspan="6"><CentreEditor :centre="centre" @open="open = $event" @close="open = null" /></td>
          </tr>
        </template>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.name ~ .minor {
  margin-left: 6px;
}
section {
  margin-top: 18px;
}
.name {
  min-height: 24px;
  text-align: left;
}
.name:hover {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.branch td {
  font-weight: 600;
}
.branch td.minor {
  font-weight: 400;
}
</style>

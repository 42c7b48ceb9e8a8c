<script setup lang="ts">
const props = defineProps<{ currency: string; chosen: string | null }>()
defineEmits<{ choose: [string] }>()
const allocation = useAllocation()
const session = useSession()
const amounts = computed(() => allocation.rolledUp(props.currency))
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
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="centre in allocation.tree"
          :key="centre.id"
          class="acts"
          :class="{ chosen: chosen === centre.id, branch: centre.depth < 2 }"
        >
          <td :style="{ paddingLeft: `${8 + centre.depth * 18}px` }">
            <button class="name" :aria-pressed="chosen === centre.id" @click="$emit('choose', centre.id)">{{ centre.name }}</button>
          </td>
          <td class="minor">{{ owner(centre.owner) }}</td>
          <td class="n">{{ money(amounts.get(centre.id)!.direct, currency) }}</td>
          <td class="n">{{ money(amounts.get(centre.id)!.shared, currency) }}</td>
          <td class="n">{{ money(amounts.get(centre.id)!.total, currency) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
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

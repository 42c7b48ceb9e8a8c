<script setup lang="ts">
/** What can be saved, or was, on one resource: looked at, decided and acted on as under Savings. */
const { id } = defineProps<{ id: string }>()
const savings = useSavings()
const data = useData()
const isReading = ref(true)
watch(
  [() => id, () => data.facts?.revision],
  async () => {
    savings.choose(null)
    await savings.read()
    isReading.value = false
  },
  { immediate: true },
)
const own = computed(() => savings.state?.opportunities.filter(({ resourceId }) => resourceId === id) ?? [])
const chosen = computed(() => own.value.find(one => one.id === savings.chosen?.id) ?? null)
</script>

<template>
  <h2 class="heading">What can be saved</h2>
  <ProblemNote v-if="savings.problem" :problem="savings.problem" :retry="() => savings.read()" />
  <p v-else-if="isReading && !savings.state" class="note" role="status">Looking for savings…</p>
  <p v-else-if="!own.length" class="note">No savings found. <NuxtLink class="link" to="/savings">All savings</NuxtLink></p>
  <ul v-else>
    <li v-for="one in own" :key="one.id">
      <button class="link" :aria-expanded="chosen?.id === one.id" @click="savings.choose(chosen?.id === one.id ? null : one.id)">
        {{ one.title }}
      </button>
      · {{ money(one.monthlySaving, one.currency) }} {{ one.currency }} a month, {{ one.state }}
    </li>
  </ul>
  <OpportunityMargin v-if="chosen" :opportunity="chosen" />
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
</style>

<script setup lang="ts">
import { addDays, isDay } from '../../../core/time/day'

/** What the period is held against: the one before, a year before, or two chosen days. */
const spend = useSpend()
const actions = useSpendActions()
const open = ref(false)
const start = ref('')
const last = ref('')
watch(open, () => {
  if (!spend.compared) return
  start.value = spend.compared.start
  last.value = addDays(spend.compared.end, -1)
})
const wrong = computed(() => !isDay(start.value) || !isDay(last.value) || start.value > last.value)
function choose(against: SpendView['against']) {
  open.value = false
  actions.go({ against })
}
const said = computed(() => spend.compared ? periodText(spend.compared) : '')
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`against: ${said}`">{{ said }}</button>
    <template #content>
      <form class="box" @submit.prevent="!wrong && choose({ start, end: addDays(last, 1) })">
        <button type="button" class="option" :class="{ on: spend.view!.against === 'before' }" @click="choose('before')">the period before</button>
        <button type="button" class="option" :class="{ on: spend.view!.against === 'year' }" @click="choose('year')">the same days a year before</button>
        <div class="own">
          <label>from <input v-model="start" type="date" class="field" aria-label="compare from"></label>
          <label>to <input v-model="last" type="date" class="field" aria-label="compare to"></label>
          <button class="button" :disabled="wrong">Compare</button>
        </div>
      </form>
    </template>
  </UPopover>
</template>

<style scoped>
.box { padding: 6px; width: 390px; }
.own { display: flex; gap: 8px; align-items: end; padding: 8px 10px 4px; border-top: 1px solid var(--line); margin-top: 4px; }
.own label { display: grid; font-size: 12px; color: var(--ink-3); }
</style>

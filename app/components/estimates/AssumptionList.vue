<script setup lang="ts">
import type { Assumption, Assumptions } from '../../../core/estimate/documents/assumptions'
import { findKind } from '../../../core/estimate/components'

/** Defaults that move the total and that nobody has confirmed, with how far they could move it. */
const props = defineProps<{ assumptions: Assumptions }>()
const store = useEstimate()
const all = ref(false)
// what was confirmed since the worker looked is gone at once
const open = computed(() =>
  props.assumptions.list.filter(a => store.byId.has(a.component) && !store.byId.get(a.component)!.confirmed.includes(a.field)),
)
const shown = computed(() => (all.value ? open.value : open.value.slice(0, 4)))
const valueText = (a: Assumption) => {
  const field = findKind(store.byId.get(a.component)?.kind ?? '')?.fields.find(f => f.name === a.field)
  return field ? shownInput(field, a.value) : a.value
}
const signed = (amount: string) => signedMoney(amount, store.currency)
</script>

<template>
  <section v-if="open.length" aria-label="Not confirmed yet">
    <h2 class="heading">
      <span class="warn">•</span> Not confirmed yet
      <span class="minor">{{ assumptions.more ? `the ${open.length} that matter most, ${assumptions.more} more` : open.length }}</span>
    </h2>
    <p class="minor">Defaults that nobody has confirmed, and how far another value could move the monthly cost.</p>
    <div v-for="a in shown" :key="a.component + a.field" class="line one">
      <b :title="`with ${a.most}`">{{ a.label }}: {{ valueText(a) }}</b
      ><span>{{ signed(a.effect) }}</span
      ><button class="link" :aria-label="`confirm ${a.label}`" @click="store.confirm(a.component, a.field)">confirm</button>
    </div>
    <p>
      <button v-if="open.length > 4" class="link" @click="all = !all">{{ all ? 'fewer' : `all ${open.length}` }}</button>{{ ' ' }}
      <button class="link" @click="store.confirmAll()">Confirm all</button>
    </p>
  </section>
</template>

<style scoped>
.one b {
  font-weight: 400;
  line-height: 1.25;
}
p {
  display: flex;
  gap: 14px;
}
</style>

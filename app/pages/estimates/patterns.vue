<script setup lang="ts">
import type { z } from 'zod'
import { findKind } from '../../../core/estimate/components'
import { kept, patternList } from '../../../shared/contracts/estimates'
import { upliftsFor } from '../../../core/uplift/uplift-set'

/** Reusable sets of components with fields left open. They are made from a part of an estimate and used where components are added. */
const { prices } = usePrices()
const list = ref<z.infer<typeof patternList>['patterns'] | null>(null)
const problem = ref<ReturnType<typeof problemOf> | null>(null)
useHead({ title: 'Patterns · Rain Barrel' })
async function load() {
  try {
    list.value = (await client.get('patterns', patternList)).patterns
    problem.value = null
  }
  catch (error) {
    problem.value = problemOf(error)
  }
}
onMounted(load)
async function remove(id: string, name: string) {
  if (!window.confirm(`Take the pattern “${name}” out for everyone? Estimates made from it stay as they are.`)) return
  try {
    await client.send('DELETE', `patterns/${id}`, {}, kept)
  }
  catch (error) {
    problem.value = problemOf(error)
  }
  await load()
}
const own = (id: string) => prices.value ? upliftsFor(prices.value.uplifts, { kind: '', variant: null, pattern: id }).map(u => u.name).join(', ') : ''
</script>

<template>
  <div class="page">
    <EstimateNav />
    <h1 class="sentence">{{ list?.length ? `${count(list.length)} patterns: sets of components with fields left open.` : 'Patterns are sets of components with fields left open.' }}</h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="list && !list.length" class="note">None yet. Open an estimate, choose Pattern, and save one of its parts.</p>
    <div v-if="list?.length" class="scroll"><table class="ledger">
      <thead><tr><th>pattern</th><th>what it is for</th><th>components</th><th>left open</th><th>own charges</th><th>by</th><th>saved</th><th /></tr></thead>
      <tbody><tr v-for="{ pattern, who, savedAt } in list" :key="pattern.id"><td><b>{{ pattern.name }}</b></td><td>{{ pattern.description }}</td><td>{{ pattern.components.map(c => findKind(c.kind)?.label ?? c.kind).join(', ') }}</td><td>{{ pattern.open.map(o => o.label).join(', ') || '–' }}</td><td class="warn">{{ own(pattern.id) }}</td><td>{{ who }}</td><td>{{ timeText(savedAt) }}</td><td><button class="link" @click="remove(pattern.id, pattern.name)">take out</button></td></tr></tbody>
    </table></div>
    <p v-if="list?.length" class="minor foot">A pattern is used in an estimate: type its name where components are added.</p>
  </div>
</template>

<style scoped>
td { vertical-align: top; }
.foot { margin-top: 8px; }
</style>

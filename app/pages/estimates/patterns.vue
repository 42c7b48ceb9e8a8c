<script setup lang="ts">
import { kept, patternList } from '../../../shared/contracts/estimates'
import { rowLabel } from '../../../core/estimate/sheet/row-name'
import { upliftsFor } from '../../../core/uplift/uplift-set'
import type { z } from 'zod'

/** Reusable sets of components with fields left open: read, changed and used from here; they are made from a part of an estimate. */
const { prices, cards } = usePrices()
const list = ref<z.infer<typeof patternList>['patterns'] | null>(null)
const { attempt, problem } = useAttempt()
/** Which pattern is open. */
const open = ref<string | null>(null)
useHead({ title: 'Patterns · Rain Barrel' })
const load = () =>
  attempt(async () => {
    list.value = (await client.get('patterns', patternList)).patterns
  })
onMounted(load)
const show = (id: string) => {
  open.value = open.value === id ? null : id
}
async function remove(id: string, name: string) {
  if (!window.confirm(`Delete the pattern “${name}” for everyone? Estimates made from it stay as they are.`)) return
  const isDone = await attempt(async () => {
    await client.send('DELETE', `patterns/${id}`, {}, kept)
    if (open.value === id) open.value = null
  })
  if (isDone) await load()
}
const own = (id: string) =>
  prices.value
    ? upliftsFor(prices.value.uplifts, { kind: '', variant: null, pattern: id })
        .map(u => u.name)
        .join(', ')
    : ''
</script>

<template>
  <div class="page">
    <PlaceNav place="Estimates" />
    <h1 class="sentence">
      {{
        list?.length
          ? `${count(list.length)} ${list.length === 1 ? 'pattern' : 'patterns'}: sets of components with fields left open.`
          : 'Patterns are sets of components with fields left open.'
      }}
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="list && !list.length" class="note">None yet. Open an estimate, choose Pattern, and save one of its parts.</p>
    <div v-if="list?.length" class="scroll" tabindex="0" role="group" aria-label="patterns">
      <table class="ledger">
        <thead>
          <tr>
            <th>pattern</th>
            <th>what it is for</th>
            <th>components</th>
            <th>left open</th>
            <th>uplifts</th>
            <th>by</th>
            <th>saved</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="{ pattern, who, savedAt } in list" :key="pattern.id">
            <tr :class="{ chosen: open === pattern.id }">
              <td>
                <button class="link" :aria-expanded="open === pattern.id" @click="show(pattern.id)">{{ pattern.name }}</button>
              </td>
              <td>{{ pattern.description }}</td>
              <td>{{ pattern.components.map(rowLabel).join(', ') }}</td>
              <td>{{ pattern.open.map(o => o.label).join(', ') || '–' }}</td>
              <td class="warn">{{ own(pattern.id) }}</td>
              <td>{{ who }}</td>
              <td>{{ timeText(savedAt) }}</td>
              <td><button class="link" :aria-label="`delete ${pattern.name}`" @click="remove(pattern.id, pattern.name)">delete</button></td>
            </tr>
            <tr v-if="open === pattern.id">
              <td colspan="8" class="opened">
                <OpenedPattern :saved="pattern" :cards="cards" @close="open = null" @saved="load" />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
td {
  vertical-align: top;
}
.opened {
  background: var(--paper-sunk);
  padding: 10px 14px !important;
}
</style>

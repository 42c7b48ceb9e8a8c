<script setup lang="ts">
import type { ProblemDetails } from '../../../shared/contracts/common'
import type { MonthsLooked } from '../../composables/useMonthEffects'

/** A file beside what is there: what it changes (in the slot), what would move in each month, and the decision. */
defineProps<{
  label: string
  isSame: boolean
  problem: ProblemDetails | null
  busy: boolean
  months: MonthsLooked
  /** Cost centres and pools by their names. */
  targets: readonly { id: string; name: string }[]
  /** What is to be known before it is used. */
  note: string
}>()
const emit = defineEmits<{ use: []; leave: []; again: [] }>()
</script>

<template>
  <section class="review" :aria-label="label">
    <h2 class="heading"><slot name="heading" /></h2>
    <ProblemNote v-if="problem" :problem="problem" :retry="() => emit('again')" />
    <p v-if="isSame" class="note">It changes nothing: all of it is there already.</p>
    <slot v-else />
    <template v-if="!isSame && months.left !== null">
      <h3 class="heading">What each cost centre would bear more or less, effective cost</h3>
      <MonthEffects :months="months" :targets="targets" />
      <slot name="below" />
    </template>
    <p class="acts">
      <button v-if="!isSame" class="button main" :disabled="busy" @click="emit('use')">Use this file</button
      ><button class="button" @click="emit('leave')">{{ isSame ? 'Close' : 'Discard it' }}</button
      ><span v-if="!isSame" class="minor">{{ note }}</span>
    </p>
  </section>
</template>

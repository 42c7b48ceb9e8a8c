<script setup lang="ts">
import type { Explained } from '../../../core/estimate/sheet/explained'

/** An amount of an estimate; it opens its Workings in the margin. The exact value shows on hover. */
const props = defineProps<{ text: string | null; asked: Explained; scenario: string | null }>()
const store = useEstimate()
const nothing = computed(() => props.text === null || Number(props.text) === 0)
const shown = computed(() =>
  nothing.value
    ? '–'
    : props.asked.figure === 'breakEvenHours'
      ? `${decimals(roundText(props.text!), 0)} h`
      : money(roundText(props.text!), store.currency),
)
const open = computed(() => store.scenarioId === props.scenario && JSON.stringify(store.explained) === JSON.stringify(props.asked))
function ask() {
  store.scenarioId = props.scenario
  store.explained = open.value ? null : props.asked
}
</script>

<template>
  <button
    v-if="!nothing"
    type="button"
    class="figure"
    :class="{ open }"
    :aria-pressed="open"
    :title="`${fullPrice(roundText(text!))}; its Workings`"
    @click.stop="ask"
  >
    {{ shown }}
  </button>
  <template v-else>{{ shown }}</template>
</template>

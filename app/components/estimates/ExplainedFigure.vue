<script setup lang="ts">
import { figureNames, type FigureName } from '../../stores/estimate'

/** An amount of an estimate; it opens its Workings in the margin. */
const props = defineProps<{ text: string | null, component: string | null, way?: string | null, figure: FigureName }>()
const store = useEstimate()
const shown = computed(() => props.text === null || props.text === '0' ? '–' : props.figure === 'breakEvenHours' ? `${decimals(roundText(props.text), 0)} h` : money(roundText(props.text), store.priced!.currency))
const open = computed(() => store.explained?.component === props.component && store.explained?.figure === props.figure && store.explained?.way === (props.way ?? null))
</script>

<template>
  <button v-if="text !== null && text !== '0'" type="button" class="figure" :class="{ open }" :aria-pressed="open" :title="`Workings: ${figureNames[figure]}`" @click.stop="store.explained = open ? null : { component, way: way ?? null, figure }">{{ shown }}</button>
  <template v-else>{{ shown }}</template>
</template>

<style scoped>
.figure { min-height: 24px; border-radius: 2px; font: inherit; }
.figure:hover, .figure.open { color: var(--act); text-decoration: underline; text-underline-offset: 3px; text-decoration-style: dotted; }
</style>

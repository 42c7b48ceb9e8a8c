<script setup lang="ts">
/** An underlined part of the Sentence that is a dimension, or any of a few further choices before them. */
const props = defineProps<{
  chosen: string | null
  label: string
  text: string
  first?: { value: string; label: string }[]
  without?: string[]
}>()
defineEmits<{ choose: [string] }>()
const { options } = useDimensionOptions()
const shown = computed(() => [...(props.first ?? []), ...options.value.filter(o => !props.without?.includes(o.value))])
</script>

<template>
  <SentenceChoice :options="shown" :chosen="chosen" :label="label" :text="text" @choose="$emit('choose', $event)" />
</template>

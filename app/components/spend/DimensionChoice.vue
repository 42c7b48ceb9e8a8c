<script setup lang="ts">
/** An underlined part of the Sentence that is a dimension, or any of a few further choices before them. */
const props = defineProps<{ chosen: string | null, label: string, text: string, first?: { value: string, label: string }[], without?: string[] }>()
const emit = defineEmits<{ choose: [string] }>()
const open = ref(false)
const { options } = useDimensionOptions()
const shown = computed(() => [...(props.first ?? []), ...options.value.filter(o => !props.without?.includes(o.value))])
function choose(value: string) {
  open.value = false
  emit('choose', value)
}
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`${label}: ${text}`">{{ text }}</button>
    <template #content><OptionList :options="shown" :chosen="chosen" :label="label" @choose="choose" /></template>
  </UPopover>
</template>

<script setup lang="ts" generic="T extends string">
/** An underlined part of a Sentence that is a choice from a list. */
defineProps<{ options: { value: T; label: string; note?: string }[]; chosen?: T | null; label: string; text: string }>()
const emit = defineEmits<{ choose: [T] }>()
const open = ref(false)
function choose(value: T) {
  open.value = false
  emit('choose', value)
}
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`${label}: ${text}`">{{ text }}</button>
    <template #content>
      <OptionList :options="options" :chosen="chosen" :label="label" @choose="choose" />
      <slot />
    </template>
  </UPopover>
</template>

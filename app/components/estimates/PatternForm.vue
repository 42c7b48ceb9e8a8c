<script setup lang="ts">
import { usualShown, type Pattern } from '../../../core/estimate/pattern'

/** What a pattern leaves open, asked before its rows are added. */
const { pattern } = defineProps<{ pattern: Pattern }>()
const emit = defineEmits<{ close: [] }>()
const store = useEstimate()
const answers = reactive<Record<number, string>>({})
const form = useTemplateRef<HTMLElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())
function fill() {
  store.addPattern(pattern, Object.fromEntries(pattern.open.map((field, i) => [i, answers[i] ?? field.usual])))
  emit('close')
}
</script>

<template>
  <form ref="form" class="sheetlike patternform" @submit.prevent="fill" @keydown.esc.stop="emit('close')" @focusout.stop>
    <h3 class="heading">{{ pattern.name }}</h3>
    <p class="minor">{{ pattern.description }}</p>
    <label v-for="(field, i) in pattern.open" :key="i"
      ><span>{{ field.label }}</span
      ><input
        class="field"
        :value="answers[i] ?? usualShown(pattern, i)"
        :title="field.help"
        @input="answers[i] = ($event.target as HTMLInputElement).value"
    /></label>
    <div class="buttons">
      <button class="button main">Add its {{ pattern.components.length }} rows</button
      ><button type="button" class="button" @click="emit('close')">Cancel</button>
    </div>
  </form>
</template>

<style scoped>
.patternform {
  position: fixed;
  z-index: 20;
  width: 420px;
  overflow-y: auto;
  padding: 12px;
  display: grid;
  gap: 8px;
}
.patternform label {
  display: grid;
  grid-template-columns: 1fr 160px;
  gap: 10px;
  align-items: center;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>

<script setup lang="ts">
import { searchKinds } from '../../../core/estimate/components'

/** Type plain words, take what is found. */
const emit = defineEmits<{ added: [string] }>()
const store = useEstimate()
const text = ref('')
const at = ref(0)
const open = ref(false)
const found = computed(() => searchKinds(text.value))
watch(text, () => {
  at.value = 0
  open.value = true
})
function take(index = at.value) {
  const kind = found.value[index]
  if (!kind) return
  text.value = ''
  open.value = false
  emit('added', store.add(kind))
}
function leave() {
  open.value = false
}
</script>

<template>
  <div class="adding" @focusout="leave">
    <input v-model="text" class="adder" placeholder="type a component: server, disk, object storage, outgoing traffic…" aria-label="add a component" role="combobox" :aria-expanded="open" aria-controls="kinds" @focus="open = true" @keydown.down.prevent="at = Math.min(found.length - 1, at + 1)" @keydown.up.prevent="at = Math.max(0, at - 1)" @keydown.enter.prevent="take()" @keydown.esc="open = false">
    <div v-if="open" id="kinds" class="sheetlike found" role="listbox" aria-label="components">
      <div v-for="(kind, index) in found" :key="kind.kind" role="option" :aria-selected="index === at" class="option" :class="{ on: index === at }" @mousedown.prevent="take(index)">{{ kind.label }} <span class="minor">{{ kind.words.slice(0, 3).join(', ') }}</span></div>
      <p v-if="!found.length" class="minor none">Nothing on this rate card is called that. Try server, disk, object storage or traffic.</p>
    </div>
  </div>
</template>

<style scoped>
.adding { position: relative; }
.adder { width: 100%; min-height: 26px; background: none; color: var(--ink); padding: 0 4px; }
.adder::placeholder { color: var(--ink-3); }
.found { position: absolute; z-index: 20; width: 420px; bottom: 30px; }
.none { padding: 6px 10px; }
</style>

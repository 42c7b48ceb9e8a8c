<script setup lang="ts" generic="T extends string">
/** A list to choose from, searched by typing, walked by arrows. */
const props = defineProps<{ options: { value: T, label: string, note?: string }[], chosen?: T | null, label: string }>()
const emit = defineEmits<{ choose: [T] }>()
const sought = ref('')
const at = ref(0)
const shown = computed(() => {
  const words = sought.value.trim().toLowerCase()
  return props.options.filter(o => !words || o.label.toLowerCase().includes(words)).slice(0, 300)
})
watch(sought, () => {
  at.value = 0
})
const list = useTemplateRef<HTMLElement>('list')
async function move(step: number) {
  at.value = Math.max(0, Math.min(shown.value.length - 1, at.value + step))
  await nextTick()
  list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' })
}
function take() {
  const option = shown.value[at.value]
  if (option) emit('choose', option.value)
}
const id = useId()
</script>

<template>
  <div class="box">
    <input v-if="options.length > 8" v-model="sought" class="field search" :placeholder="`Search ${label}`" :aria-label="`Search ${label}`" role="combobox" aria-expanded="true" :aria-controls="id" :aria-activedescendant="`${id}-${at}`" @keydown.down.prevent="move(1)" @keydown.up.prevent="move(-1)" @keydown.enter.prevent="take">
    <div :id="id" ref="list" class="list" role="listbox" :aria-label="label" :tabindex="options.length > 8 ? -1 : 0" @keydown.down.prevent="move(1)" @keydown.up.prevent="move(-1)" @keydown.enter.prevent="take">
      <div v-for="(option, index) in shown" :id="`${id}-${index}`" :key="option.value" role="option" :aria-selected="option.value === chosen" class="option" :class="{ on: index === at }" @click="emit('choose', option.value)" @mousemove="at = index">
        <span class="tick">{{ option.value === chosen ? '✓' : '' }}</span><span>{{ option.label }}</span><span v-if="option.note" class="minor note">{{ option.note }}</span>
      </div>
      <p v-if="!shown.length" class="minor none">Nothing is called that.</p>
    </div>
  </div>
</template>

<style scoped>
.box { padding: 6px; width: 270px; }
.search { width: 100%; margin-bottom: 4px; }
.list { max-height: 320px; overflow: auto; outline-offset: -2px; }
.option { cursor: pointer; }
.tick { width: 12px; color: var(--act); flex: none; }
.note { margin-left: auto; }
.none { padding: 6px 10px; }
</style>

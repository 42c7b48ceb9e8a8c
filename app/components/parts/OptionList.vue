<script setup lang="ts" generic="T extends string">
import { useVirtualizer } from '@tanstack/vue-virtual'

type Option = { value: T; label: string; note?: string; group?: string; disabled?: boolean }
/** A list to choose from, searched by typing, walked by arrows; holds thousands. With `several`, Enter and clicks tick and untick. */
const props = defineProps<{
  options: Option[]
  chosen?: T | null
  label: string
  several?: T[] | null
  sortable?: boolean
  busy?: boolean
}>()
const emit = defineEmits<{ choose: [T] }>()
const sought = ref('')
const at = ref(0)
const byName = ref(false)
const shown = computed(() => {
  const words = sought.value.trim().toLowerCase()
  const fitting = words
    ? props.options.filter(o => o.label.toLowerCase().includes(words) || o.value.toLowerCase().includes(words))
    : props.options
  return byName.value ? [...fitting].sort((a, b) => a.label.localeCompare(b.label)) : fitting
})
const headed = computed(() => !sought.value.trim() && !byName.value)
watch(sought, () => {
  at.value = 0
})
const list = useTemplateRef<HTMLElement>('list')
const virtual = useVirtualizer(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => list.value,
    estimateSize: (i: number) => (headed.value && shown.value[i]?.group && shown.value[i]!.group !== shown.value[i - 1]?.group ? 52 : 28),
    overscan: 8,
  })),
)
function move(step: number) {
  let next = at.value + step
  while (shown.value[next]?.disabled) next += step
  at.value = Math.max(0, Math.min(shown.value.length - 1, next))
  virtual.value.scrollToIndex(at.value)
}
function take(option = shown.value[at.value]) {
  if (option && !option.disabled) emit('choose', option.value)
}
const ticked = (option: Option) => (props.several ? props.several.includes(option.value) : option.value === props.chosen)
const searchable = computed(() => props.options.length > 8 || props.sortable)
const id = useId()
const keys = {
  onKeydown(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey) return
    if (event.key === 'ArrowDown') move(1)
    else if (event.key === 'ArrowUp') move(-1)
    else if (event.key === 'Enter' || (props.several && event.key === ' ' && !searchable.value)) take()
    else return
    event.preventDefault()
  },
}
</script>

<template>
  <div class="box">
    <div v-if="searchable" class="top">
      <input
        v-model="sought"
        class="field search"
        :placeholder="`Search ${label}`"
        :aria-label="`Search ${label}`"
        role="combobox"
        aria-expanded="true"
        :aria-controls="id"
        :aria-activedescendant="shown.length ? `${id}-${at}` : undefined"
        v-bind="keys"
      />
      <button v-if="sortable" type="button" class="link order" @click="byName = !byName">{{ byName ? 'by amount' : 'A to Z' }}</button>
    </div>
    <div
      :id="id"
      ref="list"
      class="list"
      role="listbox"
      :aria-label="label"
      :aria-multiselectable="several ? true : undefined"
      :tabindex="searchable ? -1 : 0"
      v-bind="searchable ? {} : keys"
    >
      <div role="presentation" :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="item in virtual.getVirtualItems()"
          :key="shown[item.index]?.value"
          role="presentation"
          class="place"
          :style="{ transform: `translateY(${item.start}px)` }"
        >
          <p
            v-if="headed && shown[item.index]!.group && shown[item.index]!.group !== shown[item.index - 1]?.group"
            class="minor group"
            role="presentation"
          >
            {{ shown[item.index]!.group }}
          </p>
          <div
            :id="`${id}-${item.index}`"
            role="option"
            :aria-selected="ticked(shown[item.index]!)"
            :aria-disabled="shown[item.index]!.disabled"
            class="option"
            :class="{ on: item.index === at, off: shown[item.index]!.disabled }"
            @click="take(shown[item.index])"
            @mousemove="at = item.index"
          >
            <span class="tick">{{ ticked(shown[item.index]!) ? '✓' : '' }}</span><span class="name">{{ shown[item.index]!.label }}</span
            ><span v-if="shown[item.index]!.note" class="minor note">{{ shown[item.index]!.note }}</span>
          </div>
        </div>
      </div>
      <p v-if="!shown.length" class="minor none">{{ busy ? 'Reading…' : 'No matches.' }}</p>
    </div>
  </div>
</template>

<style scoped>
.box {
  padding: 6px;
  width: 330px;
}
.top {
  display: flex;
  gap: 6px;
  margin-bottom: 4px;
}
.search {
  flex: 1;
  min-width: 0;
}
.order {
  white-space: nowrap;
  font-size: 12px;
}
.list {
  max-height: 320px;
  overflow: auto;
  outline-offset: -2px;
}
.place {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
}
.group {
  height: 24px;
  padding: 7px 10px 0;
  font-weight: 560;
}
.option {
  cursor: pointer;
  height: 28px;
}
.option.off {
  color: var(--ink-3);
  cursor: default;
  background: none;
}
.tick {
  width: 12px;
  color: var(--act);
  flex: none;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.note {
  margin-left: auto;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 60%;
}
.none {
  padding: 6px 10px;
}
</style>

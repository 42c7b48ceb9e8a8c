<script setup lang="ts">
import { readSizeWanted, sizesLike } from '../../../core/estimate/adding/find-size'
import type { CellOption, SizesOf } from '../../composables/sheet/cells'

/** A choice edited in its cell: typing narrows the list, arrows walk it, Enter or Tab takes, Esc leaves. */
const props = defineProps<{ options: CellOption[]; chosen: string; begun: string; label: string; sizes?: SizesOf }>()
const emit = defineEmits<{ take: [value: string, how: 'enter' | 'tab' | 'tab back']; leave: [] }>()
const sought = ref(props.begun)
const shown = computed(() => {
  // sizes are found by what they are: `4 16`, `8 vcpu`
  const wanted = props.sizes ? readSizeWanted(sought.value) : null
  if (wanted && props.sizes) {
    const byValue = new Map(props.options.map(o => [o.value, o]))
    return sizesLike(wanted, [...byValue.keys()], props.sizes.place.card, props.sizes.place.region, props.sizes.meter).map(size =>
      byValue.get(size)!,
    )
  }
  const words = sought.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const found = props.options.filter(o => words.every(word => `${o.label} ${o.note ?? ''}`.toLowerCase().includes(word)))
  // what begins with the word comes first
  return words.length
    ? [
        ...found.filter(o => o.label.toLowerCase().startsWith(words[0]!)),
        ...found.filter(o => !o.label.toLowerCase().startsWith(words[0]!)),
      ].slice(0, 200)
    : found.slice(0, 200)
})
const at = ref(
  props.begun
    ? 0
    : Math.max(
        0,
        props.options.findIndex(o => o.value === props.chosen),
      ),
)
watch(sought, () => {
  at.value = 0
})
const box = useTemplateRef<HTMLInputElement>('box')
const list = useTemplateRef<HTMLElement>('list')
const place = ref({})
const show = () => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' })
onMounted(async () => {
  const { left, bottom, top } = box.value!.getBoundingClientRect()
  place.value =
    window.innerHeight - bottom > 240 || bottom < window.innerHeight / 2
      ? { left: `${left - 6}px`, top: `${bottom + 3}px` }
      : { left: `${left - 6}px`, bottom: `${window.innerHeight - top + 3}px` }
  box.value!.focus()
  await nextTick()
  show()
})
async function move(step: number) {
  at.value = Math.max(0, Math.min(shown.value.length - 1, at.value + step))
  await nextTick()
  show()
}
function take(how: 'enter' | 'tab' | 'tab back', index = at.value) {
  const option = shown.value[index]
  if (option) emit('take', option.value, how)
  // nothing fits what was typed: the cell stays as it is, and nobody is held in it
  else emit('leave')
}
const id = useId()
</script>

<template>
  <input
    ref="box"
    v-model="sought"
    class="editor"
    :placeholder="chosen"
    :aria-label="label"
    role="combobox"
    aria-expanded="true"
    :aria-controls="id"
    :aria-activedescendant="shown.length ? `${id}-${at}` : undefined"
    @keydown.down.prevent.stop="move(1)"
    @keydown.up.prevent.stop="move(-1)"
    @keydown.enter.prevent.stop="take('enter')"
    @keydown.tab.prevent.stop="take($event.shiftKey ? 'tab back' : 'tab')"
    @keydown.esc.prevent.stop="emit('leave')"
    @blur="emit('leave')"
    @click.stop
  />
  <div :id="id" ref="list" class="sheetlike list" :style="place" role="listbox" :aria-label="label">
    <div
      v-for="(option, index) in shown"
      :id="`${id}-${index}`"
      :key="option.value"
      role="option"
      :aria-selected="option.value === chosen"
      class="option"
      :class="{ on: index === at }"
      @mousedown.prevent="take('enter', index)"
      @click.stop
    >
      <span class="tick">{{ option.value === chosen ? '✓' : '' }}</span><span class="what">{{ option.label }}</span
      ><span v-if="option.note" class="minor note">{{ option.note }}</span>
    </div>
    <p v-if="!shown.length" class="minor none">No matches.</p>
  </div>
</template>

<style scoped>
.editor {
  width: 100%;
  min-width: 70px;
  max-width: 180px;
  height: 24px;
  border: 1px solid var(--act);
  border-radius: 2px;
  background: var(--paper-raised);
  color: var(--ink);
  padding: 0 4px;
  font-weight: 400;
}
.list {
  position: fixed;
  z-index: 30;
  min-width: 240px;
  max-width: 560px;
  max-height: 230px;
  overflow-y: auto;
  font-weight: 400;
  color: var(--ink);
}
.option {
  cursor: pointer;
  white-space: nowrap;
}
.tick {
  width: 12px;
  flex: none;
  color: var(--act);
}
.note {
  margin-left: auto;
  padding-left: 18px;
}
.none {
  padding: 6px 10px;
}
</style>

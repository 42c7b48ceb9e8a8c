<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { findSize } from '../../../core/ratecard/find-price'
import { sheetKey } from '../../composables/useSheet'

/** What one can do with a row. */
const props = defineProps<{ component: string }>()
const emit = defineEmits<{ close: [] }>()
const store = useEstimate()
const { focusCell } = inject(sheetKey)!
const box = useTemplateRef<HTMLElement>('box')
const row = computed(() => store.byId.get(props.component))
const noting = ref(false)
const parting = ref(false)
const part = ref('')
const note = ref('')
const naming = ref(false)
const name = ref('')
const place = ref({ left: '40px', top: '200px' })

onMounted(async () => {
  const cell = document.querySelector(`[data-cell="${props.component}-0"]`)?.getBoundingClientRect()
  if (cell) place.value = { left: `${cell.left + 16}px`, top: `${Math.min(cell.bottom + 2, window.innerHeight - 300)}px` }
  await nextTick()
  box.value?.querySelector('button')?.focus()
})
async function close() {
  emit('close')
  if (store.byId.has(props.component)) await focusCell({ component: props.component, column: 0 })
}
onClickOutside(box, () => emit('close'))
function act(what: () => void) {
  what()
  void close()
}
async function startNote() {
  note.value = row.value?.note ?? ''
  noting.value = true
  await nextTick()
  box.value?.querySelector('textarea')?.focus()
}
async function startName() {
  name.value = row.value?.name ?? ''
  naming.value = true
  await nextTick()
  box.value?.querySelector('input')?.select()
}
const router = useRouter()
/** The size of the row's machine, where it has one: what the finder begins with. */
const size = computed(() => {
  const priced = store.priced?.byId.get(props.component)
  return priced?.place && priced.inputs.size ? (findSize(priced.place.card, priced.inputs.size) ?? null) : null
})
/** To the finder and back into this row: what is on the screen is saved first, so that nothing is lost. */
async function findSizeFor() {
  if (store.unsaved && !(await store.save())) return close()
  await router.push({
    path: '/estimates/finder',
    query: { estimate: store.id, row: props.component, ...(size.value && { vcpu: size.value.vcpu, memoryGb: size.value.memoryGb }) },
  })
}
async function startPart() {
  part.value = row.value?.part ?? ''
  parting.value = true
  await nextTick()
  box.value?.querySelector('input')?.select()
}
const putUnder = () =>
  act(
    () =>
      part.value.trim() &&
      part.value.trim() !== row.value!.part &&
      store.moveBefore(props.component, null, part.value.trim().slice(0, 120)),
  )
function move(step: number) {
  const buttons = [...(box.value?.querySelectorAll('button') ?? [])]
  buttons[(buttons.indexOf(document.activeElement as HTMLButtonElement) + step + buttons.length) % buttons.length]?.focus()
}
const choices = computed(() => [
  { label: 'Double it', act: () => store.duplicate(props.component) },
  { label: row.value?.muted ? 'Count it again' : 'Mute it', act: () => store.mute(props.component), key: 'Alt M' },
  { label: 'Move up', act: () => store.moveBy(props.component, -1), key: 'Alt ↑' },
  { label: 'Move down', act: () => store.moveBy(props.component, 1), key: 'Alt ↓' },
  { label: 'Take it out', act: () => store.remove([props.component]), key: 'Delete' },
])
</script>

<template>
  <div
    v-if="row"
    ref="box"
    class="sheetlike rowmenu"
    role="menu"
    aria-label="what to do with the row"
    :style="place"
    @keydown.esc.stop.prevent="close"
    @keydown.down.prevent="move(1)"
    @keydown.up.prevent="move(-1)"
  >
    <template v-if="!noting && !parting && !naming">
      <button v-for="choice in choices" :key="choice.label" role="menuitem" class="option" @click="act(choice.act)">
        <span class="text">{{ choice.label }}</span><span v-if="choice.key" class="key">{{ choice.key }}</span>
      </button>
      <button role="menuitem" class="option" @click="startName">{{ row.name ? 'Rename it' : 'Name it' }}…</button>
      <button
        v-if="row.inputs.size !== undefined && (row.kind === 'server' || row.kind === 'desktop-fleet')"
        role="menuitem"
        class="option"
        @click="findSizeFor"
      >
        Find a size for it…
      </button>
      <button role="menuitem" class="option" @click="startPart">Put it under another part…</button>
      <button role="menuitem" class="option" @click="startNote">{{ row.note ? 'Change its note' : 'Write a note' }}</button>
    </template>
    <form v-else-if="naming" class="noting" @submit.prevent="act(() => store.setName(component, name))">
      <input v-model="name" class="field" maxlength="80" aria-label="name of the row" placeholder="what you call it" /><button
        class="button main"
      >
        Name it
      </button>
    </form>
    <form v-else-if="parting" class="noting" @submit.prevent="putUnder">
      <input v-model="part" class="field" list="parts" maxlength="120" aria-label="part of the workload" /><datalist id="parts">
        <option v-for="known in store.parts" :key="known" :value="known" /></datalist
      ><button class="button main">Put it there</button>
    </form>
    <form v-else class="noting" @submit.prevent="act(() => store.setNote(component, note.trim()))">
      <textarea
        v-model="note"
        class="field"
        rows="4"
        maxlength="2000"
        aria-label="note"
        @keydown.ctrl.enter="act(() => store.setNote(component, note.trim()))"
      /><button class="button main">Save the note</button>
    </form>
  </div>
</template>

<style scoped>
.rowmenu {
  position: fixed;
  z-index: 50;
  width: 230px;
}
.text {
  flex: 1;
}
.noting {
  display: grid;
  gap: 6px;
  padding: 6px;
}
</style>

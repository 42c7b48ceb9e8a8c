<script setup lang="ts">
import type { CostCentre } from '../../../core/allocation/plan'
import { parentsFor, usesOf } from '../../../core/allocation/tree-edits'
import { monthStart } from '../../../core/time/day'

/** A cost centre as it is written: where it stands, who answers for it, its days; split and merged without touching the past. */
const props = defineProps<{ centre: CostCentre }>()
const emit = defineEmits<{ open: [string]; close: [] }>()
const allocation = useAllocation()
const session = useSession()
const set = (edit: (centre: CostCentre) => void) => allocation.updateCentre(props.centre.id, edit)
const text = (event: Event) => (event.target as HTMLInputElement).value
const parents = computed(() => {
  const allowed = new Set(parentsFor(allocation.plan!, props.centre.id).map(({ id }) => id))
  return allocation.tree.filter(({ id }) => allowed.has(id))
})
const uses = computed(() => usesOf(allocation.plan!, props.centre.id))
/** What it is split or merged from: usually a month begins with it. */
const day = ref(monthStart(allocation.question!.month))
const into = ref('')
const newName = ref('')
const bound = (which: 'from' | 'until', value: string) =>
  set(centre => {
    centre[which] = value || null
  })
async function addBelow() {
  emit('open', await allocation.addCentre(props.centre.id))
}
async function split() {
  await allocation.splitCentre(props.centre.id, newName.value.trim(), day.value)
  newName.value = ''
}
async function merge() {
  await allocation.mergeCentre(props.centre.id, into.value, day.value)
  into.value = ''
}
async function remove() {
  emit('close')
  await allocation.removeCentre(props.centre.id)
}
const name = useTemplateRef<HTMLInputElement>('name')
onMounted(() => name.value?.focus())
</script>

<template>
  <div class="inset" role="group" :aria-label="`Cost centre ${centre.name}`">
    <div class="row">
      <label
        >name <input ref="name" class="field" :value="centre.name" @change="set(one => void (one.name = text($event).trim()))"
      /></label>
      <label
        >code
        <input
          class="field short"
          :value="centre.code ?? ''"
          @change="set(one => (text($event).trim() ? void (one.code = text($event).trim()) : void delete one.code))"
      /></label>
      <label
        >owner
        <select class="field" :value="centre.owner ?? ''" @change="set(one => void (one.owner = text($event) || null))">
          <option value="">nobody yet</option>
          <option v-for="person in session.people" :key="person.id" :value="person.id">{{ person.name }}</option>
        </select></label
      >
      <label v-if="centre.parent !== null"
        >under
        <select class="field" :value="centre.parent" @change="set(one => void (one.parent = text($event)))">
          <option v-for="one in parents" :key="one.id" :value="one.id">{{ '\u2003'.repeat(one.depth) + one.name }}</option>
        </select></label
      >
    </div>
    <div class="row">
      <label>from <input class="field" type="date" :value="centre.from ?? ''" @change="bound('from', text($event))" /></label>
      <label>until before <input class="field" type="date" :value="centre.until ?? ''" @change="bound('until', text($event))" /></label>
      <button class="link" @click="addBelow">Add one below it</button>
      <button class="link" :disabled="uses.length > 0" @click="remove">Delete it</button>
      <span v-if="uses.length" class="minor">It has {{ uses.join(', ') }}.</span>
    </div>
    <div class="row">
      <label>on <input v-model="day" class="field" type="date" aria-label="day of the split or merger" /></label>
      <label>split off <input v-model="newName" class="field" placeholder="name of the new one" /></label>
      <button class="button" :disabled="!newName.trim() || !day" @click="split">Split off</button>
      <label
        >merge into
        <select v-model="into" class="field">
          <option value="">…</option>
          <option v-for="one in allocation.tree.filter(({ id }) => id !== centre.id)" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select></label
      >
      <button class="button" :disabled="!into || !day" @click="merge">Merge</button>
      <button class="button" @click="emit('close')">Done</button>
    </div>
  </div>
</template>

<style scoped>
.short {
  width: 90px;
}
</style>

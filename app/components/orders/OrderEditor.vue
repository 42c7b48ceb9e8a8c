<script setup lang="ts">
import { orderDefinition, type OrderDefinition, type StandingOrderView } from '../../../shared/contracts/standing-orders'
import { emptyDraft, definitionOf, draftOf, fieldLabel } from '../../utils/order-draft'

/** A standing order as it is written: what it finds, waits for and does, what starts it, and what stops it. */
const { order = undefined } = defineProps<{ order?: StandingOrderView; busy: boolean }>()
const emit = defineEmits<{ save: [OrderDefinition]; cancel: [] }>()
const orders = useStandingOrders()
const draft = reactive(order ? draftOf(order.definition) : emptyDraft())
const wrong = ref<{ field: string; reason: string }[]>([])
const detectors = computed(() => orders.state!.detectors)
// a saving is acted on or written of; an event tells of resources only
watch(
  () => draft.what,
  what => {
    if (what === 'resources' && draft.deed === 'act') draft.deed = 'notify'
    if (what === 'savings' && draft.starts === 'event') draft.starts = 'schedule'
  },
)
function save() {
  const read = orderDefinition.safeParse(definitionOf(toRaw(draft)))
  wrong.value = read.success ? [] : read.error.issues.map(({ path, message }) => ({ field: fieldLabel(path.join('.')), reason: message }))
  if (read.success) emit('save', read.data)
}
</script>

<template>
  <form class="inset editor" :aria-label="order ? 'change the order' : 'new order'" novalidate @submit.prevent="save">
    <label>Name <input v-model="draft.name" class="field wide" maxlength="80" /></label>
    <fieldset>
      <legend>It finds</legend>
      <label
        ><select v-model="draft.what" class="field" aria-label="what it finds">
          <option value="resources">resources</option>
          <option value="savings">savings</option>
        </select></label
      >
      <template v-if="draft.what === 'resources'">
        <label
          >made
          <select v-model="draft.made" class="field" aria-label="when it was made">
            <option value="">at any time</option>
            <option value="last month">last month</option>
            <option value="since last month">since the beginning of last month</option>
            <option value="within">in the last … days</option>
            <option value="before">more than … days ago</option>
          </select></label
        >
        <label v-if="draft.made === 'within' || draft.made === 'before'"
          >days <input v-model="draft.madeDays" class="field few" inputmode="numeric"
        /></label>
        <label>costs a month at least <input v-model="draft.costAtLeast" class="field few" inputmode="decimal" placeholder="any" /></label>
      </template>
      <div v-else class="detectors" role="group" aria-label="kinds of saving">
        <label v-for="one in detectors" :key="one.detector"
          ><input v-model="draft.detectors" type="checkbox" :value="one.detector" /> {{ one.label }}</label
        >
      </div>
      <ConditionList :conditions="draft.conditions" :least="0" @change="conditions => (draft.conditions = conditions)" />
    </fieldset>
    <fieldset>
      <legend>It does</legend>
      <label
        ><select v-model="draft.deed" class="field" aria-label="what it does">
          <option value="tag owner">sets a tag to whoever made it</option>
          <option value="tag">sets a tag</option>
          <option value="notify">writes to its owner</option>
          <option v-if="draft.what === 'savings'" value="act">acts on the saving</option>
        </select></label
      >
      <label v-if="draft.deed === 'tag' || draft.deed === 'tag owner'"
        >tag <input v-model="draft.key" class="field" maxlength="128"
      /></label>
      <label v-if="draft.deed === 'tag'">to <input v-model="draft.value" class="field" maxlength="256" /></label>
      <label v-if="draft.deed === 'tag owner'"
        >written as
        <select v-model="draft.form" class="field" aria-label="how a person is written">
          <option value="mail">address</option>
          <option value="name">name</option>
          <option value="id">id</option>
        </select></label
      >
      <template v-if="draft.deed === 'notify'">
        <label
          >by
          <select v-model="draft.by" class="field" aria-label="how it writes">
            <option value="mail">mail</option>
            <option value="chat">chat</option>
          </select></label
        >
        <label
          >if nobody owns it, to
          <select v-model="draft.otherwise" class="field" aria-label="whom to write to if nobody owns it">
            <option value="">nobody</option>
            <option v-for="one in orders.state!.people" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select></label
        >
        <label class="broad">message <textarea v-model="draft.message" class="field" rows="2" maxlength="2000" /></label>
      </template>
      <label>after it was found for <input v-model="draft.waitDays" class="field few" inputmode="numeric" /> days</label>
    </fieldset>
    <fieldset>
      <legend>It runs</legend>
      <label
        ><select v-model="draft.starts" class="field" aria-label="what starts it">
          <option value="person">on request</option>
          <option value="schedule">by schedule</option>
          <option v-if="draft.what === 'resources'" value="event">when something is created</option>
        </select></label
      >
      <template v-if="draft.starts === 'schedule'">
        <label>every <input v-model="draft.everyCount" class="field few" inputmode="numeric" /></label>
        <select v-model="draft.everyUnit" class="field" aria-label="unit of time">
          <option v-for="unit in ['hour', 'day', 'week', 'month'] as const" :key="unit" :value="unit">{{ unit }}</option>
        </select>
      </template>
      <label>and does nothing above <input v-model="draft.brakeResources" class="field few" inputmode="numeric" /> resources</label>
      <label>or above a monthly cost of <input v-model="draft.brakeCost" class="field few" inputmode="decimal" placeholder="any" /></label>
    </fieldset>
    <div v-if="wrong.length" class="bad" role="alert">
      <ul>
        <li v-for="one in wrong" :key="one.field + one.reason">{{ one.field }}: {{ one.reason }}</li>
      </ul>
    </div>
    <div class="acts">
      <button class="button main" type="submit" :disabled="busy">Save</button>
      <button class="button" type="button" @click="emit('cancel')">Cancel</button>
      <span class="minor">A changed order is off until it has had a dry run.</span>
    </div>
  </form>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 10px;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
legend {
  float: left;
  width: 70px;
  color: var(--ink-2);
}
.wide {
  width: 360px;
}
.few {
  width: 80px;
}
.broad {
  flex-basis: 100%;
}
.broad textarea {
  width: 100%;
}
.detectors {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  flex-basis: 100%;
  gap: 2px 14px;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>

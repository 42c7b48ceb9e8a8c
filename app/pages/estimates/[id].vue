<script setup lang="ts">
import { onKeyStroke, useEventListener } from '@vueuse/core'

const store = useEstimate()
const route = useRoute()
const router = useRouter()
useHead({ title: () => `${store.estimate?.name ?? 'Estimate'} · Rain Barrel` })
const naming = ref(false)
type Panel = 'scenarios' | 'ways' | 'regions' | 'versions' | 'away' | 'pattern' | 'card' | 'note'
const panel = ref<Panel | null>(null)
const panels: { key: Panel; label: string }[] = [
  { key: 'scenarios', label: 'Scenarios' },
  { key: 'ways', label: 'Ways to pay' },
  { key: 'regions', label: 'Regions' },
  { key: 'versions', label: 'Versions' },
  { key: 'pattern', label: 'Pattern' },
  { key: 'note', label: 'Note' },
  { key: 'away', label: 'Share' },
]
const toggle = (key: Panel) => void (panel.value = panel.value === key ? null : key)

onKeyStroke(['z', 'y', 's'], event => {
  if (!event.ctrlKey && !event.metaKey) return
  const inText =
    (event.target instanceof HTMLInputElement && event.target.type !== 'checkbox') || event.target instanceof HTMLTextAreaElement
  if (event.key === 's') void store.save()
  else if (inText) return
  else if (event.key === 'y' || event.shiftKey) store.redo()
  else store.undo()
  event.preventDefault()
})
useSingleKey('/', () => document.querySelector<HTMLInputElement>('.adder')?.focus(), 'to where components are added')
useSingleKey('t', () => document.querySelector<HTMLInputElement>('.margin input')?.focus(), 'to the target and what is beside the sheet')
onKeyStroke('Escape', event => {
  if (event.defaultPrevented || !panel.value || event.target instanceof HTMLInputElement) return
  panel.value = null
})
useEventListener('beforeunload', event => {
  if (store.unsaved) event.preventDefault()
})
onBeforeRouteLeave(() => !store.unsaved || window.confirm('The estimate has changes that are not saved. Leave without them?'))

function rename(text: string) {
  naming.value = false
  if (text.trim()) store.patch({ name: text.trim().slice(0, 120) })
}
const regions = computed(() => store.card?.regions.map(r => ({ value: r.id, label: r.id, note: r.name })) ?? [])
async function keepApart() {
  const own = await store.saveApart()
  if (own) await router.push(`/estimates/${own}`)
}
const pricedAway = computed(() =>
  store.estimate?.cards.length
    ? store.estimate.cards
        .filter(c => c.provider !== store.estimate!.provider)
        .map(c => `${c.provider} of ${versionText(c)}`)
        .join(', ')
    : '',
)
watch(
  () => route.params.id,
  id => id && store.open(String(id)),
  { immediate: true },
)
</script>

<template>
  <div class="page">
    <ProblemNote
      v-if="store.problem && !store.overtaken"
      :problem="store.problem"
      :retry="store.estimate ? undefined : () => store.open(String(route.params.id))"
      ><NuxtLink v-if="!store.estimate" class="link" to="/estimates">All estimates</NuxtLink></ProblemNote
    >
    <div v-if="store.overtaken" class="overtaken" role="alert">
      <b>{{ store.overtaken.who }} saved version {{ store.overtaken.version }} after you began.</b> Yours is still on the screen and nothing
      of it is lost.
      <button class="link" @click="panel = 'versions'">See what differs</button>
      <button class="link" @click="keepApart">Save mine as a separate estimate</button>
      <button class="link" @click="store.open(String(route.params.id))">Take theirs</button>
    </div>
    <p v-if="!store.estimate && !store.problem" class="note" role="status">Reading…</p>
    <template v-if="store.estimate && store.priced">
      <div class="title">
        <h1 v-if="!naming" class="name">
          <button title="Rename" @click="naming = true">{{ store.estimate.name }}</button>
        </h1>
        <input
          v-else
          v-held="store.estimate.name"
          class="field name"
          maxlength="120"
          aria-label="name of the estimate"
          @vue:mounted="($event.el as HTMLInputElement).focus()"
          @change="rename(($event.target as HTMLInputElement).value)"
          @blur="naming = false"
          @keydown.enter="rename(($event.target as HTMLInputElement).value)"
        />
        <span class="minor facts"
          >in
          <SentenceChoice
            label="region"
            :options="regions"
            :chosen="store.estimate.region"
            :text="store.estimate.region"
            @choose="store.setRegion($event)"
          />
          · {{ store.estimate.provider }} rate card of
          {{ versionText(store.estimate.cards.find(c => c.provider === store.estimate!.provider)!)
          }}<template v-if="pricedAway">, {{ pricedAway }}</template> · {{ store.currency
          }}{{ store.estimate.month ? ` · ${monthText(store.estimate.month)}, ${store.priced.monthHours} hours` : '' }} · not a quote</span
        >
        <span class="acts">
          <button class="link" :disabled="!store.past.length" @click="store.undo()">Undo</button>
          <button class="link" :disabled="!store.future.length" @click="store.redo()">Redo</button>
          <button class="button main" :disabled="!store.unsaved || store.saving" @click="store.save()">Save</button>
        </span>
      </div>
      <div class="under">
        <span>{{
          store.unsaved
            ? 'Changes are not saved yet.'
            : `Saved as version ${store.saved!.version}${store.saved!.name ? ` “${store.saved!.name}”` : ''} by ${store.saved!.who}, ${timeText(store.saved!.savedAt)}.`
        }}</span>
        <button
          v-for="newer in store.newerCards"
          :key="newer.provider"
          class="link warn"
          :aria-expanded="panel === 'card'"
          @click="toggle('card')"
        >
          {{ newer.provider }} has a newer rate card, from {{ versionText(versionOfEntry(newer)) }}
        </button>
        <span class="panels"
          ><button v-for="entry in panels" :key="entry.key" class="link" :aria-expanded="panel === entry.key" @click="toggle(entry.key)">
            {{ entry.label
            }}{{ entry.key === 'scenarios' && store.estimate.scenarios.length ? `\u00A0${store.estimate.scenarios.length}` : '' }}
          </button></span
        >
      </div>
      <div v-if="panel" class="panel">
        <button class="link close" @click="panel = null">close</button>
        <ScenarioPanel v-if="panel === 'scenarios'" />
        <WaysPanel v-else-if="panel === 'ways'" />
        <RegionsPanel v-else-if="panel === 'regions'" />
        <VersionsPanel v-else-if="panel === 'versions'" />
        <PatternPanel v-else-if="panel === 'pattern'" @done="panel = null" />
        <CardPanel v-else-if="panel === 'card'" />
        <AwayPanel v-else-if="panel === 'away'" />
        <label v-else class="notes"
          >Note on the estimate, for your own people<textarea
            v-held="store.estimate.note"
            class="field"
            rows="4"
            maxlength="2000"
            @change="store.patch({ note: ($event.target as HTMLTextAreaElement).value.trim() })"
          />
        </label>
      </div>
      <div class="columns">
        <EstimateSheet />
        <EstimateMargin />
      </div>
    </template>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
}
.name {
  font: 600 22px var(--serif);
  letter-spacing: -0.01em;
}
.name button {
  min-height: 30px;
}
.facts :deep(.control) {
  color: var(--ink);
  font-weight: 560;
  text-decoration: underline;
  text-decoration-color: var(--act);
  text-underline-offset: 3px;
  min-height: 24px;
}
.acts {
  margin-left: auto;
  display: flex;
  gap: 16px;
  align-items: center;
}
.panels {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-left: auto;
}
.panels [aria-expanded='true'] {
  text-decoration: underline;
  text-underline-offset: 4px;
  text-decoration-thickness: 2px;
}
.warn.link {
  color: var(--warn);
}
.panel {
  position: relative;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  background: var(--paper-sunk);
  padding: 10px 14px 12px;
  margin: 4px 0 8px;
}
.panel .close {
  position: absolute;
  right: 14px;
  top: 8px;
}
.overtaken {
  background: var(--warn-soft, var(--paper-sunk));
  border-left: 3px solid var(--warn);
  padding: 8px 12px;
  margin-bottom: 8px;
  border-radius: 3px;
}
.overtaken .link {
  margin-left: 12px;
}
.notes {
  display: grid;
  gap: 4px;
  max-width: 760px;
  color: var(--ink-2);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 265px;
  gap: 18px;
  margin-top: 4px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

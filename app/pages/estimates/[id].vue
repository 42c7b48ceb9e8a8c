<script setup lang="ts">
import { onKeyStroke, useEventListener } from '@vueuse/core'

const store = useEstimate()
const route = useRoute()
onMounted(() => store.open(String(route.params.id)))
useHead({ title: () => `${store.estimate?.name ?? 'Estimate'} · Rain Barrel` })
const naming = ref(false)

onKeyStroke(['z', 'y', 's'], (event) => {
  if (!event.ctrlKey && !event.metaKey) return
  const inText = event.target instanceof HTMLInputElement && event.target.type !== 'checkbox'
  if (event.key === 's') void store.save()
  else if (inText) return
  else if (event.key === 'y' || event.shiftKey) store.redo()
  else store.undo()
  event.preventDefault()
})
useEventListener('beforeunload', (event) => {
  if (store.unsaved) event.preventDefault()
})
onBeforeRouteLeave(() => !store.unsaved || window.confirm('The estimate has changes that are not saved. Leave without them?'))

function takeOut() {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([store.json()], { type: 'application/json' }))
  link.download = `${store.estimate!.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}
function rename(text: string) {
  naming.value = false
  if (text.trim()) store.change((e) => {
    e.name = text.trim().slice(0, 120)
  })
}
const regions = computed(() => store.card?.regions.map(r => ({ value: r.id, label: r.id, note: r.name })) ?? [])
</script>

<template>
  <div class="page">
    <ProblemNote v-if="store.problem" :problem="store.problem" :retry="store.estimate ? undefined : () => store.open(String(route.params.id))" />
    <p v-if="!store.estimate && !store.problem" class="note" role="status">Reading…</p>
    <template v-if="store.estimate && store.priced">
      <div class="title">
        <h1 v-if="!naming" class="name"><button title="Rename" @click="naming = true">{{ store.estimate.name }}</button></h1>
        <input v-else class="field name" :value="store.estimate.name" maxlength="120" aria-label="name of the estimate" @vue:mounted="($event.el as HTMLInputElement).focus()" @change="rename(($event.target as HTMLInputElement).value)" @blur="naming = false" @keydown.enter="rename(($event.target as HTMLInputElement).value)">
        <span class="minor facts sentence2">in <SentenceChoice label="region" :options="regions" :chosen="store.estimate.region" :text="store.estimate.region" @choose="store.change(e => { e.region = $event })" /> · {{ store.estimate.provider }} rate card of {{ dayText(store.card!.validFrom) }} · {{ store.card!.currency }} · not a quote</span>
        <span class="acts">
          <button class="link" :disabled="!store.past.length" @click="store.undo()">Undo</button>
          <button class="link" :disabled="!store.future.length" @click="store.redo()">Redo</button>
          <button class="link" @click="takeOut">Take out (JSON)</button>
          <button class="button main" :disabled="!store.unsaved || store.saving" @click="store.save()">Save</button>
        </span>
      </div>
      <p class="under">{{ store.unsaved ? 'Changes are not saved yet.' : `Saved as version ${store.saved!.version} by ${store.saved!.who}, ${timeText(store.saved!.savedAt)}.` }}</p>
      <div class="columns">
        <EstimateSheet />
        <EstimateMargin />
      </div>
    </template>
  </div>
</template>

<style scoped>
.title { display: flex; flex-wrap: wrap; align-items: baseline; gap: 4px 16px; }
.name { font: 600 22px var(--serif); letter-spacing: -.01em; }
.name button { min-height: 30px; }
.facts :deep(.control) { color: var(--ink); font-weight: 560; text-decoration: underline; text-decoration-color: var(--act); text-underline-offset: 3px; min-height: 24px; }
.acts { margin-left: auto; display: flex; gap: 16px; align-items: center; }
.columns { display: grid; grid-template-columns: minmax(0, 1fr) 265px; gap: 20px; margin-top: 4px; }
@media (max-width: 1000px) { .columns { grid-template-columns: minmax(0, 1fr); } }
</style>

<script setup lang="ts">
import type { ActsPreview, OpportunityView } from '../../../shared/contracts/savings'

/** Acts on several opportunities: what would be done to each, their approval, and what became of each while it goes on. */
const { rows } = defineProps<{ rows: readonly OpportunityView[] }>()
const savings = useSavings()
const preview = ref<ActsPreview | null>(null)
const isAsking = ref(false)
const review = useTemplateRef<HTMLElement>('review')
const able = computed(() => preview.value?.items.filter(({ why }) => why === null) ?? [])
const others = computed(() => preview.value?.items.filter(({ why }) => why !== null) ?? [])
const actable = computed(() => rows.filter(({ canDo }) => canDo))
async function show() {
  isAsking.value = true
  preview.value = await savings.previewActs(rows.map(({ id }) => id))
  isAsking.value = false
  await nextTick()
  review.value?.scrollIntoView({ block: 'nearest' })
}
async function begin() {
  const ids = able.value.map(({ id }) => id)
  preview.value = null
  await savings.actOn(ids)
}
/** How they are undone, each said once, and whether nothing brings them back. */
const undoWords = computed(() => [...new Map(able.value.map(({ undo, isFinal }) => [undo, isFinal]))])
</script>

<template>
  <div role="group" aria-label="act on them">
    <button
      v-if="actable.length"
      class="button"
      :disabled="isAsking || savings.batch?.isUnderWay"
      :aria-expanded="preview !== null"
      @click="preview ? (preview = null) : show()"
    >
      {{ isAsking ? 'Asking…' : 'Act on them…' }}
    </button>
    <div v-if="preview" ref="review" class="inset review">
      <p v-if="able.length">
        {{ able.length === 1 ? 'One can' : `${count(able.length)} can` }} be done from here and {{ able.length === 1 ? 'saves' : 'save' }}
        <b>{{ money(preview.total, preview.currency ?? 'EUR') }} {{ preview.currency }}</b> a month together. Each is looked at once more
        just before.
      </p>
      <ul class="deeds" tabindex="0" aria-label="what would be done">
        <li v-for="item in able" :key="item.id">
          <b>{{ item.resourceName }}</b>: {{ item.does }} · {{ money(item.monthlySaving, item.currency) }} {{ item.currency }}
        </li>
        <li v-for="item in others" :key="item.id" class="minor">{{ item.resourceName }} is left out: {{ item.why }}</li>
      </ul>
      <p v-if="preview.needsSecond" class="warn">
        It saves more than {{ money(savings.state!.secondPersonAbove!, preview.currency ?? 'EUR') }} {{ preview.currency }} a month: a
        second person has to approve it too.
      </p>
      <p v-for="[words, isFinal] in undoWords" :key="words ?? ''" :class="isFinal ? 'warn' : 'minor'">{{ words }}</p>
      <div class="acts">
        <button class="button main" :disabled="!able.length" @click="begin">
          Approve {{ able.length === 1 ? 'it' : `all ${count(able.length)}` }} and begin
        </button>
        <button class="button" @click="preview = null">Cancel</button>
      </div>
    </div>
    <div v-if="savings.batch" class="inset" role="status" aria-label="what became of it">
      <p>
        {{ savings.batch.waiting ? 'Waits for a second person' : savings.batch.isUnderWay ? 'Under way' : 'Ended' }}:
        <b>{{ count(savings.batch.done.length) }} done</b>, {{ count(savings.batch.failed.length) }} not done<template
          v-if="savings.batch.open && !savings.batch.waiting"
          >, {{ count(savings.batch.open) }} to go</template
        >.
        <button v-if="savings.batch.isUnderWay" class="link" @click="savings.stopActs()">Stop</button>
        <button v-else class="link" @click="savings.forgetBatch()">Close</button>
      </p>
      <ul v-if="savings.batch.failed.length" class="deeds" tabindex="0" aria-label="what was not done">
        <li v-for="one in savings.batch.failed" :key="one.id">
          <b>{{ one.resourceName }}</b>: {{ one.action!.steps.at(-1)!.outcome }}
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.deeds {
  max-height: 220px;
  overflow-y: auto;
  margin: 4px 0;
}
.inset {
  margin-top: 8px;
}
</style>

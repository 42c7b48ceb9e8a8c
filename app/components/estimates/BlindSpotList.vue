<script setup lang="ts">
import { blindSpots, blindSpotTitle } from '../../../core/estimate/blind-spots'

/** What the estimate most likely lacks: each with its reason and size, one click to add or to dismiss with a reason. */
const props = defineProps<{ sizes: Record<string, string | null> }>()
const store = useEstimate()
const sizeText = (id: string) => (props.sizes[id] ? ` ${money(roundText(props.sizes[id]), store.currency)}` : '')
/** A thing that the card does not price is not offered at nothing. */
const isPriced = (id: string) => props.sizes[id] !== null
const reasons = reactive<Record<string, string>>({})
const dismissing = ref<string | null>(null)
const dismissed = computed(() => store.estimate!.dismissed.filter(d => !d.blindSpot.startsWith('duplicate ')))
function dismiss(spot: string) {
  const reason = (reasons[spot] ?? '').trim()
  if (!reason) return
  store.dismiss(spot, reason)
  dismissing.value = null
}
async function ask(spot: string) {
  dismissing.value = dismissing.value === spot ? null : spot
  await nextTick()
  document.querySelector<HTMLInputElement>('.dismissal input')?.focus()
}
</script>

<template>
  <section>
    <h2 class="heading">
      Blind spots <span class="minor">{{ store.spots.length ? `${store.spots.length} of ${blindSpots.length} apply` : 'none apply' }}</span>
    </h2>
    <div v-for="spot in store.spots" :key="spot.id" class="spot">
      <div class="line">
        <b>{{ spot.title }}</b><button
          v-if="isPriced(spot.id)"
          class="link"
          :aria-label="`add: ${spot.title}`"
          @click="store.addSpot(spot)"
        >
          {{ `add${sizeText(spot.id)}` }}</button
        ><button class="link" :aria-label="`dismiss: ${spot.title}`" :aria-expanded="dismissing === spot.id" @click="ask(spot.id)">
          dismiss
        </button>
      </div>
      <p class="minor">
        {{ spot.reason
        }}<template v-if="!isPriced(spot.id)">. <b>The rate card has no price for it</b>: add a free-form line, or dismiss it</template>
      </p>
      <form v-if="dismissing === spot.id" class="dismissal" @submit.prevent="dismiss(spot.id)">
        <input
          v-model="reasons[spot.id]"
          class="field"
          placeholder="why it does not apply"
          aria-label="why it does not apply"
          maxlength="500"
          required
        /><button class="button">Dismiss</button>
      </form>
    </div>
    <p v-for="gone in dismissed" :key="gone.blindSpot" class="minor">
      {{ blindSpotTitle(gone.blindSpot) }}: dismissed, “{{ gone.reason }}”
      <button class="link" @click="store.restore(gone.blindSpot)">restore</button>
    </p>
  </section>
</template>

<style scoped>
.spot {
  padding: 3px 0;
}
.spot .line .link {
  white-space: nowrap;
}
.spot .minor {
  line-height: 1.25;
}
.dismissal {
  display: flex;
  gap: 6px;
  margin-top: 4px;
}
.dismissal .field {
  flex: 1;
  min-width: 0;
}
</style>

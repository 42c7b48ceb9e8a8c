<script setup lang="ts">
import type { Estimate } from '../../../core/estimate/estimate'
import type { Filing, ListedEstimate } from '../../../shared/contracts/estimates'
import { soughtText } from '../../stores/estimate-list'

/** The estimates that are saved: searched, filed, archived, copied. */
const props = defineProps<{ attempt: (work: () => Promise<void>) => Promise<boolean> }>()
const estimates = useEstimateList()
const router = useRouter()
const sought = ref('')
const folder = ref<string | null>(null)
const withPutAway = ref(false)
function showAll() {
  sought.value = ''
  folder.value = null
  withPutAway.value = true
}
const list = computed(() => estimates.list ?? [])
const shown = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/).filter(Boolean)
  return list.value.filter(saved => {
    if (saved.putAway && !withPutAway.value) return false
    if (folder.value !== null && saved.folder !== folder.value) return false
    const text = soughtText(saved)
    return words.every(word => text.includes(word))
  })
})
const putAway = computed(() => list.value.filter(saved => saved.putAway).length)
const file = (saved: ListedEstimate, change: Partial<Filing>) => props.attempt(() => estimates.file(saved, change))
const copyOf = (estimate: Estimate) =>
  props.attempt(async () => {
    await router.push(`/estimates/${await estimates.save({ ...estimate, name: `${estimate.name}, copy`.slice(0, 120) })}`)
  })
</script>

<template>
  <div>
    <form v-if="list.length" class="under sift" role="search" @submit.prevent>
      <label
        >search
        <input v-model="sought" class="field" type="search" placeholder="name, part, component, size, person" aria-label="search estimates"
      /></label>
      <label v-if="estimates.folders.length"
        >folder
        <select v-model="folder" class="field" aria-label="folder">
          <option :value="null">all</option>
          <option v-for="f in estimates.folders" :key="f" :value="f">{{ f }}</option>
          <option value="">not filed</option>
        </select></label
      >
      <label v-if="putAway"><input v-model="withPutAway" type="checkbox" /> with {{ count(putAway) }} archived</label>
      <span v-if="shown.length !== list.length - (withPutAway ? 0 : putAway)">{{ count(shown.length) }} found</span>
    </form>
    <datalist id="folders"><option v-for="f in estimates.folders" :key="f" :value="f" /></datalist>
    <div v-if="shown.length" class="scroll" tabindex="0" role="group" aria-label="estimates">
      <table class="ledger">
        <thead>
          <tr>
            <th>estimate</th>
            <th>folder</th>
            <th>rate cards</th>
            <th>region</th>
            <th class="n">components</th>
            <th class="n">scenarios</th>
            <th class="n">effective monthly</th>
            <th>version</th>
            <th>by</th>
            <th>saved</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="saved in shown" :key="saved.id" class="acts" :class="{ away: saved.putAway }">
            <td>
              <NuxtLink :to="`/estimates/${saved.id}`" class="link">{{ saved.title }}</NuxtLink><span v-if="saved.putAway" class="minor"
                >, archived</span
              >
            </td>
            <td>
              <input
                v-held="saved.folder"
                class="field folder"
                list="folders"
                maxlength="80"
                placeholder="–"
                :aria-label="`folder of ${saved.title}`"
                @change="file(saved, { folder: ($event.target as HTMLInputElement).value.trim() })"
              />
            </td>
            <td>
              <template v-if="saved.estimate"
                >{{ saved.estimate.cards.map(c => `${c.provider}, ${versionText(c)}`).join('; ')
                }}<NuxtLink v-if="estimates.hasNewerCard(saved.estimate)" to="/estimates/rate-cards" class="link newer"
                  >a newer one</NuxtLink
                ></template
              >
            </td>
            <td>{{ saved.estimate?.region ?? '–' }}</td>
            <td class="n">{{ saved.estimate?.components.length ?? '–' }}</td>
            <td class="n">{{ saved.estimate?.scenarios.length || '–' }}</td>
            <td class="n">
              <span v-if="estimates.totals.get(saved.id)?.why" class="bad why">{{ estimates.totals.get(saved.id)!.why }}</span><template
                v-else
                >{{ estimates.totals.get(saved.id)?.amount }}
                <div v-if="estimates.totals.get(saved.id)?.lacks" class="bad lack">
                  {{ count(estimates.totals.get(saved.id)!.lacks) }} {{ estimates.totals.get(saved.id)!.lacks === 1 ? 'row' : 'rows' }} not
                  counted
                </div></template
              >
            </td>
            <td>{{ saved.version }}{{ saved.name ? ` “${saved.name}”` : '' }}</td>
            <td>{{ saved.who }}</td>
            <td>{{ timeText(saved.savedAt) }}</td>
            <td>
              <button v-if="saved.estimate" class="link" :aria-label="`copy ${saved.title}`" @click="copyOf(saved.estimate)">copy</button
              >{{ ' ' }}
              <button
                class="link"
                :aria-label="`${saved.putAway ? 'restore' : 'archive'} ${saved.title}`"
                @click="file(saved, { putAway: !saved.putAway })"
              >
                {{ saved.putAway ? 'restore' : 'archive' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="list.length" class="note">
      No matches.
      <button class="link" @click="showAll">Show all of them</button>
    </p>
  </div>
</template>

<style scoped>
td:not(:nth-child(-n + 3)):not(:nth-child(8)) {
  white-space: nowrap;
}
.sift {
  margin-bottom: 6px;
}
.sift label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.folder {
  width: 92px;
}
.folder:not(:hover, :focus) {
  border-color: transparent;
  background: none;
}
.sift input[type='search'] {
  width: 290px;
}
.away td {
  color: var(--ink-3);
}
.why {
  white-space: normal;
  display: inline-block;
  max-width: 220px;
  text-align: left;
  line-height: 1.25;
  font-size: 12px;
}
.lack {
  font-size: 11px;
}
.newer {
  color: var(--warn);
  margin-left: 10px;
}
</style>

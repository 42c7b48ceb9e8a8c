<script setup lang="ts">
import type { OpportunityView } from '../../../shared/contracts/savings'
import { saveFile } from '../../utils/save-file'

/** Hands opportunities over: a list for each owner, by link or mail, or a file of all of them. */
const { rows } = defineProps<{ rows: readonly OpportunityView[] }>()
const savings = useSavings()
const isAsking = ref(false)
const message = ref('')
const isMailed = ref(true)
const said = ref('')
const { attempt, problem } = useAttempt()
const ids = computed(() => rows.map(({ id }) => id))
const owners = computed(() => [...new Set(rows.flatMap(({ owner }) => (owner === null ? [] : [owner])))].sort())
const ownerless = computed(() => rows.filter(({ owner }) => owner === null).length)
watch(ids, () => {
  said.value = ''
})
async function handOver() {
  const made = await savings.handOver({ ids: ids.value, ...(message.value.trim() && { message: message.value }), mail: isMailed.value })
  if (!made) return
  isAsking.value = false
  message.value = ''
  const lists = made.lists.map(({ person, items }) => `${person}, ${items.length}`).join('; ')
  said.value = `${made.lists.length === 1 ? 'One list' : `${made.lists.length} lists`} made: ${lists}.`
}
const download = (format: 'csv' | 'xlsx' | 'pdf') =>
  attempt(async () => {
    const { blob, name } = await client.file('savings/file', { ids: ids.value, format })
    saveFile(blob, name ?? `savings.${format}`)
  })
</script>

<template>
  <div class="hand-over" role="group" aria-label="share with owners">
    <div class="row">
      <button class="button" :aria-expanded="isAsking" @click="isAsking = !isAsking">Share with owners…</button>
      <button class="link" @click="download('csv')">CSV</button>
      <button class="link" @click="download('xlsx')">XLSX</button>
      <button class="link" @click="download('pdf')">PDF</button>
    </div>
    <form v-if="isAsking" class="inset" @submit.prevent="handOver">
      <p v-if="owners.length">
        A list for {{ owners.length > 1 ? 'each of ' : '' }}{{ owners.join(', ') }}.<template v-if="ownerless">
          {{ ' ' }}{{ count(ownerless) }} {{ ownerless === 1 ? 'has' : 'have' }} no owner and {{ ownerless === 1 ? 'goes' : 'go' }} to
          nobody.</template
        >
      </p>
      <p v-else class="warn">None of these has an owner: set owners of cost centres under Allocation.</p>
      <label>
        Message
        <textarea v-model="message" class="field" rows="2" maxlength="2000" />
      </label>
      <label><input v-model="isMailed" type="checkbox" /> mail each list with its link</label>
      <div class="row">
        <button class="button main" type="submit" :disabled="!owners.length">Make the lists</button>
        <button class="button" type="button" @click="isAsking = false">Cancel</button>
      </div>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <span class="minor" role="status">{{ said }}</span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  gap: 6px 10px;
  align-items: center;
}
.inset {
  margin-top: 8px;
}
textarea {
  display: block;
  width: 100%;
}
</style>

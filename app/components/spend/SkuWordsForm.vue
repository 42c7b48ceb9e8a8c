<script setup lang="ts">
import { z } from 'zod'

/** Saying what a SKU code means in the organisation's own words, or going back to what the rate card says. */
const { sku, attempt } = defineProps<{ sku: string; attempt: (work: () => Promise<void>) => Promise<boolean> }>()
const session = useSession()
const skus = useSkuWords()
const words = computed(() => skus.words[sku]?.words)
const editing = ref(false)
const edited = ref('')
function edit() {
  editing.value = true
  edited.value = words.value ?? ''
}
const keep = (text: string | null) =>
  attempt(async () => {
    await client.send('POST', 'spend/skus', { sku, entry: text ? { words: text } : null }, z.object({ sku: z.string() }))
    skus.forget(sku)
    await skus.learn([sku])
    editing.value = false
  })
</script>

<template>
  <button v-if="!editing && session.seesAll" class="link" @click="edit">{{ words ? 'Change the wording' : 'Describe it' }}</button>
  <form v-if="editing" class="edit" @submit.prevent="keep(edited.trim() || null)">
    <input v-model="edited" class="field" aria-label="What the code means" maxlength="300" /><button class="button">Save</button
    ><button type="button" class="link" @click="keep(null)">as the rate card says</button>
  </form>
</template>

<style scoped>
.edit {
  display: flex;
  gap: 8px;
  align-items: center;
}
.edit .field {
  width: 380px;
}
@media (max-width: 1000px) {
  .edit .field {
    width: 220px;
  }
}
</style>

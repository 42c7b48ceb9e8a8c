<script setup lang="ts">
import { z } from 'zod'
import type { ResourceView } from '../../../shared/contracts/resources'

/** What people have written of a resource, in Markdown. */
const props = defineProps<{ id: string; note: ResourceView['note']; attempt: (work: () => Promise<void>) => Promise<boolean> }>()
const emit = defineEmits<{ saved: [] }>()
const body = ref('')
const writing = ref(false)
watch(
  () => props.note?.body,
  written => {
    body.value = written ?? ''
  },
  { immediate: true },
)
const save = () =>
  props.attempt(async () => {
    await client.send('PUT', 'resources/note', { id: props.id, body: body.value }, z.object({ id: z.string() }))
    writing.value = false
    emit('saved')
  })
</script>

<template>
  <div>
    <h2 class="heading">Note</h2>
    <template v-if="writing">
      <textarea v-model="body" class="field area" rows="6" aria-label="Note, in Markdown" />
      <div class="acts">
        <button class="button main" @click="save">Save</button><button class="button" @click="writing = false">Cancel</button>
      </div></template
    >
    <template v-else>
      <!-- eslint-disable-next-line vue/no-v-html -- Markdown without HTML, made harmless -->
      <div v-if="note?.body" class="marked" v-html="markdownHtml(note.body)" />
      <p v-if="note?.body" class="minor">{{ note.who }}, {{ timeText(note.savedAt) }}</p>
      <button class="link" @click="writing = true">{{ note?.body ? 'Change it' : 'Write a note' }}</button></template
    >
  </div>
</template>

<style scoped>
.heading {
  margin: 18px 0 4px;
}
.area {
  width: 100%;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.marked :deep(ul) {
  list-style: disc;
  padding-left: 18px;
}
.marked :deep(a) {
  color: var(--act);
  text-decoration: underline;
}
</style>

<script setup lang="ts">
/** What is added, changed and removed, by name, a line to a kind of thing; further lines in the slot. */
defineProps<{ lines: readonly { what: string; added: readonly string[]; changed: readonly string[]; removed: readonly string[] }[] }>()
const MOST = 12
/** As many names as one reads. */
const named = (names: readonly string[]) =>
  names.slice(0, MOST).join('; ') + (names.length > MOST ? ` and ${count(names.length - MOST)} more` : '') || '–'
</script>

<template>
  <table class="ledger">
    <thead>
      <tr>
        <th />
        <th>added</th>
        <th>changed</th>
        <th>removed</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ what, added, changed, removed } in lines" :key="what">
        <td class="what">{{ what }}</td>
        <td>{{ named(added) }}</td>
        <td>{{ named(changed) }}</td>
        <td :class="{ bad: removed.length }">{{ named(removed) }}</td>
      </tr>
      <slot />
    </tbody>
  </table>
</template>

<style scoped>
.what {
  white-space: nowrap;
  color: var(--ink-2);
}
</style>

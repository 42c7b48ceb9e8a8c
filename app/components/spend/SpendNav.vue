<script setup lang="ts">
/** What belongs to the place Spend besides the sentence. */
const entries = [{ to: '/spend', label: 'Sentence' }, { to: '/spend/saved', label: 'Saved' }, { to: '/spend/tags', label: 'Tags' }, { to: '/spend/commitments', label: 'Commitments' }, { to: '/spend/codes', label: 'SKU codes' }]
</script>

<template>
  <nav class="nav" aria-label="within Spend"><NuxtLink v-for="entry in entries" :key="entry.to" :to="entry.to" class="link" exact-active-class="on">{{ entry.label }}</NuxtLink></nav>
</template>

<style scoped>
.nav { display: flex; flex-wrap: wrap; gap: 4px 18px; }
.on { color: var(--ink); box-shadow: inset 0 -2px var(--act); }
</style>

<script setup lang="ts">
/** What belongs to the place Estimates besides the estimates themselves. */
const entries = [{ to: '/estimates', label: 'Estimates' }, { to: '/estimates/finder', label: 'Finder' }, { to: '/estimates/patterns', label: 'Patterns' }, { to: '/estimates/own-charges', label: 'Own charges' }, { to: '/estimates/rate-cards', label: 'Rate cards' }]
</script>

<template>
  <nav class="nav" aria-label="within Estimates"><NuxtLink v-for="entry in entries" :key="entry.to" :to="entry.to" class="link" exact-active-class="on">{{ entry.label }}</NuxtLink></nav>
</template>

<style scoped>
.nav { display: flex; flex-wrap: wrap; gap: 4px 18px; margin-bottom: 8px; border-bottom: 1px solid var(--line); }
.on { color: var(--ink); box-shadow: inset 0 -2px var(--act); }
</style>

<script setup lang="ts">
/** What belongs to the place Sources besides the deliveries. */
const entries = [{ to: '/sources', label: 'Deliveries' }, { to: '/sources/invoices', label: 'Invoices' }, { to: '/sources/rates', label: 'Exchange rates' }]
</script>

<template>
  <nav class="nav" aria-label="within Sources"><NuxtLink v-for="entry in entries" :key="entry.to" :to="entry.to" class="link" exact-active-class="on">{{ entry.label }}</NuxtLink></nav>
</template>

<style scoped>
.nav { display: flex; flex-wrap: wrap; gap: 4px 18px; margin-bottom: 8px; border-bottom: 1px solid var(--line); }
.on { color: var(--ink); box-shadow: inset 0 -2px var(--act); }
</style>

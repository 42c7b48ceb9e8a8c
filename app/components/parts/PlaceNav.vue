<script setup lang="ts">
/** What belongs to a place besides its first page. */
defineProps<{ place: string; entries: { to: string; label: string }[] }>()
</script>

<template>
  <nav class="nav" :aria-label="`within ${place}`">
    <NuxtLink v-for="entry in entries" :key="entry.to" :to="entry.to" class="link" exact-active-class="on">{{ entry.label }}</NuxtLink>
  </nav>
</template>

<style scoped>
.nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 8px;
  border-bottom: 1px solid var(--line);
}
.on {
  color: var(--ink);
  box-shadow: inset 0 -2px var(--act);
}
</style>

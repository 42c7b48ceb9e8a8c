<script setup lang="ts">
/** What is missing for a page to show anything, and where it is brought in. */
defineProps<{ missing: 'charges' | 'rate card' }>()
</script>

<template>
  <p class="note">
    {{ missing === 'charges' ? 'Nothing is loaded yet.' : 'No rate card is loaded.' }}
    <NuxtLink class="link" to="/sources">{{ missing === 'charges' ? 'Drop a bill' : 'Drop one' }} under Sources</NuxtLink>
  </p>
</template>

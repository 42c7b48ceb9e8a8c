<script setup lang="ts">
/** An address that leads nowhere. */
useHead({ title: 'No such page · Rain Barrel' })
</script>

<template>
  <div class="page">
    <h1 class="sentence">Page not found.</h1>
    <p class="note">
      There is nothing at {{ $route.path }}: the address may be mistyped, or come from another version.
      <NuxtLink class="link" to="/">Back to the start page</NuxtLink>
    </p>
  </div>
</template>

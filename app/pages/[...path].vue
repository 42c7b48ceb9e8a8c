<script setup lang="ts">
/** An address that leads nowhere. */
useHead({ title: 'No such page · Rain Barrel' })
</script>

<template>
  <div class="page">
    <h1 class="sentence">There is no such page.</h1>
    <p class="note">
      Nothing stands at {{ $route.path }}: the address may be mistyped, or of another version.
      <NuxtLink class="link" to="/">To the start</NuxtLink>
    </p>
  </div>
</template>

<script setup lang="ts">
/** A page that broke: what is safe, and the way back. */
useHead({ title: 'Rain Barrel' })
</script>

<template>
  <main class="page">
    <h1 class="sentence">Something went wrong on this page.</h1>
    <p class="note">
      Nothing was lost on the server. Open it again; if it happens again, the browser’s console and the server’s log say more.
    </p>
    <p><button class="button main" @click="clearError({ redirect: '/' })">Back to the start page</button></p>
  </main>
</template>

<script setup lang="ts">
/** Where there are no cost centres yet: the first is made here, or a file brings them. */
const allocation = useAllocation()
const name = ref('')
</script>

<template>
  <form class="first" @submit.prevent="allocation.start(name.trim())">
    <h1 class="sentence">No cost centres yet.</h1>
    <p>
      Start with the topmost, such as the company: the centres below it, the rules and the pools are added on this page. Or
      <NuxtLink to="/sources" class="link">drop a file with cost centres</NuxtLink> under Sources.
    </p>
    <label>name <input v-model="name" class="field" required /></label>
    <button class="button main" :disabled="!name.trim()">Create it</button>
  </form>
</template>

<style scoped>
.first p {
  margin: 6px 0 12px;
}
.first .button {
  margin-left: 8px;
}
</style>

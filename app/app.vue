<script setup lang="ts">
const session = useSession()
const data = useData()
const route = useRoute()
/** A page that is shown to someone outside: nothing of the house around it, and nothing else is asked of the server. */
const outside = computed(() => route.path.startsWith('/shared/'))
onMounted(() => {
  if (outside.value) return
  void session.load().catch(() => {})
  void data.load()
})
</script>

<template>
  <UApp>
    <template v-if="!outside">
      <TopBar />
      <LevelStrip />
    </template>
    <main>
      <NuxtPage />
    </main>
  </UApp>
</template>

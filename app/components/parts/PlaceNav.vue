<script setup lang="ts">
/** What belongs to a place besides its first page. */
const props = defineProps<{ place: string }>()
const session = useSession()
const pages = computed(() => pagesFor(places.find(({ name }) => name === props.place)!.pages, session.seesAll))
</script>

<template>
  <nav class="nav" :aria-label="`within ${place}`">
    <NuxtLink v-for="{ to, label } in pages" :key="to" :to="to" class="link" exact-active-class="on">{{ label }}</NuxtLink>
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

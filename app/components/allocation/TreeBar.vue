<script setup lang="ts">
/** Trees over the same money: a further one is begun here; the one that is shown is named, or deleted. */
const emit = defineEmits<{ tree: [string | undefined] }>()
const allocation = useAllocation()
const isFixed = computed(() => allocation.closed !== null && !allocation.draft)
const shown = computed(() => allocation.trees.find(({ id }) => id === allocation.treeId) ?? null)
async function add() {
  emit('tree', await allocation.addTree())
}
async function remove() {
  await allocation.removeTree()
  emit('tree', undefined)
}
</script>

<template>
  <p v-if="!isFixed" class="trees minor">
    <template v-if="shown">
      <label
        >Name of this tree
        <input
          class="field"
          :value="shown.name"
          maxlength="80"
          aria-label="name of the tree"
          @change="allocation.renameTree(($event.target as HTMLInputElement).value.trim())"
      /></label>
      <button class="link" @click="remove">Delete the tree</button>
    </template>
    <button class="link" @click="add">Add a tree over the same money</button>
  </p>
</template>

<style scoped>
.trees {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  margin: 0 0 4px;
}
</style>

<script setup lang="ts">
/** Where months are closed: whether what is saved leaves them to the rules that hold for them, else they are adjusted. */
const leaves = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="leave"><input v-model="leaves" type="checkbox" /> leave closed months as they are</label>
</template>

<style scoped>
.leave {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
</style>

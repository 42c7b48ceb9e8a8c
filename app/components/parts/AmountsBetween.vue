<script setup lang="ts">
/** From one amount to another, and what lies between: the parts add to the difference as they are shown. */
defineProps<{
  label: string
  currency: string
  from: { label: string; amount: string }
  between: readonly { label: string; amount: string; isGood?: boolean }[]
  to: { label: string; amount: string }
}>()
</script>

<template>
  <table class="ledger between" :aria-label="label">
    <tbody>
      <tr>
        <td>{{ from.label }}</td>
        <td class="n">{{ money(from.amount, currency) }}</td>
      </tr>
      <tr v-for="part in between" :key="part.label">
        <td>{{ part.label }}</td>
        <td class="n" :class="{ good: part.isGood }">{{ signedMoney(part.amount, currency) }}</td>
      </tr>
      <tr class="total">
        <td>{{ to.label }}</td>
        <td class="n">{{ money(to.amount, currency) }} {{ currency }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.between {
  width: auto;
  margin: 8px 0;
}
</style>

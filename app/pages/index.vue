<script setup lang="ts">
import { dimensionList } from '../../shared/contracts/spend'

// Where there is nothing to read yet, one begins by loading a bill.
definePageMeta({
  middleware: async () => {
    try {
      const { charges } = await client.get('spend/dimensions', dimensionList)
      return navigateTo(charges > 0 ? '/spend' : '/sources', { replace: true })
    } catch {
      return navigateTo('/sources', { replace: true })
    }
  },
})
</script>

<template>
  <div />
</template>

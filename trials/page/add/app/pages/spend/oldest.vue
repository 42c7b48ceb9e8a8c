<script setup lang="ts">
import { dimensionList } from '../../../shared/contracts/spend'

const { data: list } = await useAsyncData('oldest', () => client.get('spend/dimensions', dimensionList))
</script>

<template>
  <div>
    <PlaceNav place="Spend" />
    <h1>The first day that is loaded</h1>
    <p>{{ list?.firstDay ?? 'nothing is loaded' }}</p>
  </div>
</template>

<script setup lang="ts">
/** How an amount of Spend was made: the price parts of its charges, adding up to it. */
const spend = useSpend()
</script>

<template>
  <aside v-if="spend.workings" class="aside" aria-label="Workings">
    <div class="top">
      <h2 class="heading">Workings</h2>
      <button class="link" @click="spend.workings = null">close</button>
    </div>
    <p class="minor">
      {{ spend.workings.title }}, {{ periodText(spend.period) }}: quantity × unit price, as charged<template
        v-if="spend.sentence!.measure === 'effectiveCost'"
        >; what a commitment covers counts at its effective price</template
      >
    </p>
    <table class="ledger">
      <tbody>
        <PricePartRows :parts="spend.workings.parts" :left="spend.workings.left" :total="spend.workings.total" :currency="spend.currency" />
      </tbody>
    </table>
  </aside>
</template>

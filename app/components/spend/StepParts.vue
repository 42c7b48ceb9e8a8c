<script setup lang="ts">
/** The last column of the Steps: quantity × unit price of what is chosen. */
const spend = useSpend()
const skus = useSkuWords()
</script>

<template>
  <div>
    <div v-for="(part, i) in spend.parts" :key="i" class="part" :title="part.description ?? ''">
      <span class="name">{{
        part.unitPrice === null
          ? (part.description ?? part.chargeCategory)
          : `${quantity(part.quantity)} ${part.pricingUnit ?? ''} × ${fullPrice(part.unitPrice)}`
      }}</span>
      <span class="amount">{{ money(part.amount, part.currency) }}</span>
      <span class="minor days"
        ><template v-if="part.skuId && skus.words[part.skuId]"
          >{{ skus.words[part.skuId]!.words }}, charged for {{ skus.words[part.skuId]!.charged }}, </template
        >{{
          part.firstDay === part.lastDay ? dayShortText(part.firstDay) : `${dayShortText(part.firstDay)} to ${dayShortText(part.lastDay)}`
        }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.amount {
  text-align: right;
}
.part {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  padding: 4px 10px;
  border-bottom: 1px solid var(--line);
}
.days {
  grid-column: 1 / -1;
}
</style>

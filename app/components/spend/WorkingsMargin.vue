<script setup lang="ts">
/** How an amount of Spend was made: the price parts of its charges, adding up to it. */
const spend = useSpend()
const skus = useSkuWords()
</script>

<template>
  <aside v-if="spend.workings" class="margin" aria-label="Workings">
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
        <tr v-for="(part, i) in spend.workings.parts" :key="i">
          <td :title="part.skuId ?? ''">
            {{ (part.skuId && skus.words[part.skuId]?.words) || part.description || part.chargeCategory
            }}<span v-if="part.skuId && skus.words[part.skuId]" class="minor">, for {{ skus.words[part.skuId]!.charged }}</span
            ><br /><span class="minor">{{
              part.unitPrice === null
                ? `${part.charges} charges`
                : `${quantity(part.quantity)} ${part.pricingUnit ?? ''} × ${fullPrice(part.unitPrice)}`
            }}</span>
          </td>
          <td class="n">{{ money(part.amount, part.currency) }}</td>
        </tr>
        <tr v-if="spend.workings.left">
          <td>the other {{ count(spend.workings.left.count) }}</td>
          <td class="n">{{ money(spend.workings.left.amount, spend.currency) }}</td>
        </tr>
        <tr class="total">
          <td>{{ count(spend.workings.parts.length + (spend.workings.left?.count ?? 0)) }} parts</td>
          <td class="n">{{ money(spend.workings.total, spend.currency) }} {{ spend.currency }}</td>
        </tr>
      </tbody>
    </table>
  </aside>
</template>

<style scoped>
.margin {
  border-left: 1px solid var(--line-strong);
  padding-left: 18px;
}
.top {
  display: flex;
  justify-content: space-between;
}
</style>

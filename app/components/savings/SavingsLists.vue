<script setup lang="ts">
import type { SavingsList } from '../../../shared/contracts/savings-lists'

/** Lists that were handed to owners: what they answered, what became of the mail; a link, and taking one back. */
const savings = useSavings()
onMounted(() => savings.loadLists())
const lists = computed(() => savings.lists?.lists ?? [])
/** The newest link of a list, shown once. */
const links = ref(new Map<string, string>())
const opened = ref<string | null>(null)
const answered = ({ items }: SavingsList, answer: string) => items.filter(item => item.answered?.answer === answer).length
async function link(id: string) {
  const path = await savings.linkTo(id)
  if (path) links.value = new Map(links.value).set(id, new URL(path, window.location.href).href)
}
</script>

<template>
  <section v-if="lists.length" aria-label="Lists shared with owners" class="lists">
    <h2 class="heading">Lists shared with owners</h2>
    <table class="ledger">
      <thead>
        <tr>
          <th>to</th>
          <th>made</th>
          <th class="n">saves a month</th>
          <th>answered</th>
          <th>mail</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="list in lists" :key="list.id">
          <tr class="acts">
            <td>
              <button class="link" :aria-expanded="opened === list.id" @click="opened = opened === list.id ? null : list.id">
                {{ list.person }}
              </button>
            </td>
            <td>
              {{ timeText(list.madeAt) }}<span class="minor">, {{ list.madeBy }}</span>
            </td>
            <td class="n">{{ list.saves.map(one => `${money(one.amount, one.currency)} ${one.currency}`).join(', ') }}</td>
            <td>
              {{ count(answered(list, 'agreed')) }} agreed, {{ count(answered(list, 'refused')) }} refused of
              {{ count(list.items.length) }}
            </td>
            <td :class="{ bad: list.mailState === 'failed' || list.mailState === 'not known' }">
              {{ list.mailState ?? '–' }}<span v-if="list.mailSaid && list.mailState !== 'sent'" class="minor">, {{ list.mailSaid }}</span>
            </td>
            <td>
              <span v-if="list.revokedAt" class="minor">withdrawn</span>
              <template v-else>
                <button class="link" @click="link(list.id)">Link</button> ·
                <button class="link" @click="savings.takeBack(list.id)">Withdraw</button>
              </template>
            </td>
          </tr>
          <tr v-if="links.has(list.id)">
            <td colspan="6" class="note">
              Open until {{ dayText(list.expiresOn) }}; the address is shown only once:
              <a class="link" :href="links.get(list.id)">{{ links.get(list.id) }}</a>
            </td>
          </tr>
          <tr v-if="opened === list.id">
            <td colspan="6">
              <ul>
                <li v-for="item in list.items" :key="item.id">
                  {{ item.title }}: {{ money(item.monthlySaving, item.currency) }} {{ item.currency }} ·
                  <b v-if="item.answered" :class="item.answered.answer === 'refused' ? 'bad' : 'good'">{{ item.answered.answer }}</b><span
                    v-else
                    class="minor"
                    >not answered</span
                  ><template v-if="item.answered?.reason">: {{ item.answered.reason }}</template>
                </li>
              </ul>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.lists {
  margin-top: 20px;
}
a.link {
  overflow-wrap: anywhere;
}
</style>

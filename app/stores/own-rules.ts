import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ownRulePreview, ownRules, type OwnRuleInput, type OwnRuleView } from '../../shared/contracts/savings-own'
import { client } from '../utils/client'

/** Rules of one's own that find savings. */
export const useOwnRules = defineStore('own-rules', () => {
  const rules = ref<OwnRuleView[]>([])
  const take = async (next: Promise<{ rules: OwnRuleView[] }>) => {
    rules.value = (await next).rules
  }
  const load = () => take(client.get('savings/rules', ownRules))
  const add = (rule: OwnRuleInput) => take(client.send('POST', 'savings/rules', rule, ownRules))
  const remove = (id: string) => take(client.send('DELETE', `savings/rules/${id}`, {}, ownRules))
  /** What a rule would find; keeps nothing. */
  const preview = (rule: OwnRuleInput) => client.send('POST', 'savings/rules/preview', rule, ownRulePreview)
  return { rules, load, add, remove, preview }
})

import { randomUUID } from 'node:crypto'
import { Decimal, decimalText } from '../../core/money/decimal'
import { isCurrency } from '../../core/money/currency'
import type { OwnRule } from '../../core/opportunity/own/own-finds'
import { ownRule } from '../../core/opportunity/detectors/own-rule'
import type { OwnRuleInput, OwnRulePreview, OwnRuleView } from '../../shared/contracts/savings-own'
import { Problem } from '../problems/problem'
import { listThresholds } from '../stores/decisions'
import { addRule, listRules, ownAsked } from '../stores/own-finds'
import { checkScope } from './check-scope'
import { foundOnBill, presentCards, type SavingsWork } from './savings-found'

/** Rules of one's own, each with how many it finds now. */
export async function ownRules(work: SavingsWork): Promise<{ rules: OwnRuleView[] }> {
  const { database, people } = work
  const [rules, thresholds] = await Promise.all([listRules(database.db), listThresholds(database.db)])
  const { found } = rules.length ? await foundOnBill(work, thresholds) : { found: [] }
  return {
    rules: rules.map(({ id, definition: { scope, ...own }, who, at }) => ({
      ...{ id, ...own, keep: scope.keep, leaveOut: scope.leaveOut, conditions: scope.conditions ?? [] },
      ...{ who: people.nameOf(who), at, found: found.filter(isOf(id)).length },
    })),
  }
}

const isOf =
  (rule: string) =>
  ({ id, detector }: { id: string; detector: string }) =>
    detector === ownRule.detector && id.endsWith(`/${rule}`)

function ruleOf({ name, above, currency, keep, leaveOut, conditions }: OwnRuleInput, id: string): OwnRule {
  checkScope({ keep, leaveOut, conditions })
  if (!isCurrency(currency))
    throw new Problem('invalid', 'no-currency', `«${currency}» is no currency`, 'Use a code of ISO 4217, such as EUR.', [
      { field: 'currency', reason: 'not a currency of ISO 4217' },
    ])
  return { id, name, above, currency, scope: { keep, leaveOut, conditions } }
}

/** What a rule would find, beside all that is looked for already; keeps nothing. */
export async function previewRule(work: SavingsWork, asked: OwnRuleInput): Promise<OwnRulePreview> {
  const rule = ruleOf(asked, randomUUID())
  const { seen, database } = work
  const [thresholds, cards, own] = await Promise.all([listThresholds(database.db), presentCards(seen, database.db), ownAsked(database.db)])
  const { found } = (await seen.inSlices('savings', { thresholds, cards, own: { ...own, rules: [...own.rules, rule] } })).read()
  const mine = found.filter(isOf(rule.id))
  const monthly = mine.reduce((sum, { monthlySaving }) => sum.plus(monthlySaving), new Decimal(0))
  return {
    ...{ found: mine.length, monthly: decimalText(monthly) },
    titles: mine.slice(0, MOST_TITLES).map(({ title }) => title),
    more: Math.max(0, mine.length - MOST_TITLES),
  }
}
const MOST_TITLES = 8

/** Keeps a rule. @throws Problem where it names what is no dimension, or no currency. */
export async function keepRule({ database, asker }: SavingsWork, asked: OwnRuleInput): Promise<void> {
  await addRule(database.db, ruleOf(asked, randomUUID()), asker.id)
}

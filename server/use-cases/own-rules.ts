import { randomUUID } from 'node:crypto'
import { Decimal, decimalText } from '../../core/money/decimal'
import { isCurrency } from '../../core/money/currency'
import type { OwnRule } from '../../core/opportunity/own/own-finds'
import { ownRule } from '../../core/opportunity/detectors/own-rule'
import type { OwnRuleInput, OwnRulePreview, OwnRuleView } from '../../shared/contracts/savings-own'
import { conflict, Problem } from '../problems/problem'
import { listThresholds } from '../stores/decisions'
import { addRule, listRules } from '../stores/own-finds'
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

/** What a rule would find; keeps nothing. */
export async function previewRule(work: SavingsWork, asked: OwnRuleInput): Promise<OwnRulePreview> {
  const rule = ruleOf(asked, randomUUID())
  const { seen, database } = work
  const { found: mine } = (await seen.inSlices('ruled', { cards: await presentCards(seen, database.db), rule })).read()
  const monthly = mine.reduce((sum, { monthlySaving }) => sum.plus(monthlySaving), new Decimal(0))
  return {
    ...{ found: mine.length, monthly: decimalText(monthly) },
    titles: mine.slice(0, MOST_TITLES).map(({ title }) => title),
    more: Math.max(0, mine.length - MOST_TITLES),
  }
}
const MOST_TITLES = 8

/** Each rule reads the bill once more. */
const MOST_RULES = 50

/** Keeps a rule. @throws Problem where it names what is no dimension, or no currency, or there are enough. */
export async function keepRule({ database, asker }: SavingsWork, asked: OwnRuleInput): Promise<void> {
  if ((await listRules(database.db)).length >= MOST_RULES)
    throw conflict(`There are ${MOST_RULES} rules already`, 'Delete one that finds nothing any more, or put two into one Sentence.')
  await addRule(database.db, ruleOf(asked, randomUUID()), asker.id)
}

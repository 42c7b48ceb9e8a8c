import { Decimal, zero } from '../../money/decimal'
import { evaluate } from '../../working/working'
import type { BillDetector } from '../detector'
import { resourceKey, unitsIn, within, type BilledResource } from '../bill/billed-resource'
import { findingOf, monthlyCost } from '../bill/finding'
import type { OwnRule } from '../own/own-finds'

/** What rules of one's own find: resources that cost so much or more within a Sentence, and still do. */
export const ownRule: BillDetector = {
  from: 'bill',
  detector: 'own-rule',
  label: 'Found by your own rules',
  thresholds: [],
  goesBy: 'a Sentence and an amount, each as it was saved',
  lookThrough({ own }) {
    const byResource = new Map<string, { rule: OwnRule; resource: BilledResource }[]>()
    for (const { rule, within: resources } of own.rules)
      for (const resource of resources) {
        const key = resourceKey(resource)
        byResource.set(key, [...(byResource.get(key) ?? []), { rule, resource }])
      }
    return found => (byResource.get(resourceKey(found)) ?? []).flatMap(({ rule, resource }) => ruledFinding(rule, resource) ?? [])
  },
  byHand: {
    steps: ({ resourceName }) => [
      `ask the owner of ${resourceName} whether it is needed`,
      'delete it, or make it smaller, at its provider',
    ],
    undo: 'What is deleted comes back only from a copy.',
  },
  says: open => `Your own rules find ${open === 1 ? 'one thing' : `${open} things`}.`,
}

/** @param resource with what it is charged for within the rule's Sentence, no more. */
function ruledFinding({ id, name, above, currency }: OwnRule, resource: BilledResource) {
  const uses = resource.uses.filter(use => use.currency === currency && within(use.cost, 30) > 0n)
  const isStill = uses.some(use => unitsIn(use, 3) > 0n)
  const cost = uses.reduce((sum, use) => sum.plus(evaluate(monthlyCost(resource, use))), zero)
  if (!isStill || cost.lt(new Decimal(above))) return null
  return findingOf(
    resource,
    uses.map(use => ({ use, how: 'gone' as const, then: null })),
    {
      detector: ownRule.detector,
      of: id,
      title: `${resource.name}: ${name}`,
      risk: 'some',
      minutesOfWork: 30,
      series: uses
        .slice(0, MOST_SERIES)
        .map(use => ({
          resourceId: resource.id,
          skus: [use.sku],
          label: `charged under ${use.sku}`,
          unit: use.unit ?? 'units',
          threshold: null,
          said: `By the rule «${name}»: at least ${above} ${currency} a month of what it looks at.`,
        })),
    },
  )
}

/** So many of a resource's SKUs are drawn. */
const MOST_SERIES = 3

import type { Condition } from '../../core/allocation/plan'
import type { Does, MadeWhen, NoticeWay, PersonForm, Starts } from '../../core/standing-order/definition'
import type { OrderDefinition } from '../../shared/contracts/standing-orders'

type Unit = Extract<Starts, { by: 'schedule' }>['every']['unit']

/** An order as its form has it: every field is there, whatever is chosen. */
export type OrderDraft = {
  name: string
  what: OrderDefinition['finds']['what']
  made: '' | MadeWhen['when']
  madeDays: string
  costAtLeast: string
  detectors: string[]
  conditions: Condition[]
  deed: Does['deed']
  key: string
  value: string
  form: PersonForm
  by: NoticeWay
  otherwise: string
  message: string
  waitDays: string
  starts: Starts['by']
  everyCount: string
  everyUnit: Unit
  brakeResources: string
  brakeCost: string
}

export const emptyDraft = (): OrderDraft => ({
  ...{ name: '', what: 'resources', made: '', madeDays: '30', costAtLeast: '', detectors: [], conditions: [], deed: 'notify' },
  ...{ key: 'owner', value: '', form: 'mail', by: 'mail', otherwise: '', message: '', waitDays: '0' },
  ...{ starts: 'person', everyCount: '1', everyUnit: 'day', brakeResources: '100', brakeCost: '' },
})

/** An order as its form has it. */
export function draftOf({ name, finds, waitDays, does, starts, brake }: OrderDefinition): OrderDraft {
  const draft = emptyDraft()
  const made = finds.what === 'resources' ? finds.made : null
  return {
    ...{ ...draft, name, what: finds.what, conditions: finds.conditions, waitDays: String(waitDays), deed: does.deed, starts: starts.by },
    ...(finds.what === 'resources' ? { made: made?.when ?? '', costAtLeast: finds.costAtLeast ?? '' } : { detectors: finds.detectors }),
    ...(made && 'days' in made && { madeDays: String(made.days) }),
    ...('key' in does && { key: does.key }),
    ...(does.deed === 'tag' && { value: does.value.text }),
    ...(does.deed === 'tag owner' && { form: does.form }),
    ...(does.deed === 'notify' && { by: does.by, otherwise: does.otherwise ?? '', message: does.message ?? '' }),
    ...(starts.by === 'schedule' && { everyCount: String(starts.every.count), everyUnit: starts.every.unit }),
    ...{ brakeResources: String(brake.resources), brakeCost: brake.monthlyCost ?? '' },
  }
}

/** A number as it was typed; NaN, which no order takes, for what is none. */
const numberIn = (text: string) => (/^\s*\d+\s*$/.test(text) ? Number(text) : NaN)
/** An amount as it was typed, with a comma or a point; null for none. */
const amountIn = (text: string) => text.trim().replace(',', '.') || null

/** What a form says, to be read by the contract. */
export function definitionOf(draft: OrderDraft): unknown {
  const made =
    draft.made === 'within' || draft.made === 'before' ? { when: draft.made, days: numberIn(draft.madeDays) } : { when: draft.made }
  const { conditions } = draft
  return {
    name: draft.name,
    finds:
      draft.what === 'resources'
        ? { what: 'resources', conditions, made: draft.made ? made : null, costAtLeast: amountIn(draft.costAtLeast) }
        : { what: 'savings', detectors: draft.detectors, conditions },
    waitDays: numberIn(draft.waitDays),
    does: doesOf(draft),
    starts:
      draft.starts === 'schedule'
        ? { by: 'schedule', every: { count: numberIn(draft.everyCount), unit: draft.everyUnit } }
        : { by: draft.starts },
    brake: { resources: numberIn(draft.brakeResources), monthlyCost: amountIn(draft.brakeCost) },
  }
}

function doesOf({ deed, key, value, form, by, otherwise, message }: OrderDraft): object {
  switch (deed) {
    case 'tag':
      return { deed, key, value: { from: 'text', text: value } }
    case 'tag owner':
      return { deed, key, form }
    case 'notify':
      return { deed, by, otherwise: otherwise || null, message: message.trim() || null }
    case 'act':
      return { deed }
  }
}

const labels: Readonly<Record<string, string>> = {
  name: 'name',
  'finds.detectors': 'kinds of saving',
  'finds.made.days': 'made … days',
  'finds.costAtLeast': 'costs a month at least',
  'finds.conditions': 'what it finds',
  'does.deed': 'what it does',
  'does.key': 'tag',
  'does.value.text': 'what the tag says',
  'does.message': 'message',
  waitDays: 'after it was found for',
  'starts.by': 'what starts it',
  'starts.every.count': 'every',
  'brake.resources': 'does nothing above',
  'brake.monthlyCost': 'a monthly cost of',
}

/** What a field of an order is called on its form; what lies within conditions is spoken of as what it finds. */
export const fieldLabel = (path: string): string =>
  Object.hasOwn(labels, path) ? labels[path]! : path.startsWith('finds.conditions') ? labels['finds.conditions']! : path

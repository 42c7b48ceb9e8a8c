import { manyOf } from '../text/many-of'
import { conditionsWords } from '../allocation/rule-words'
import { detectorOf } from '../opportunity/detectors'
import type { Does, MadeWhen, OrderDefinition, Starts } from './definition'

/** When something was made, in words: `made last month`. */
export function madeWords(made: MadeWhen): string {
  switch (made.when) {
    case 'last month':
      return 'made last month'
    case 'since last month':
      return 'made since the beginning of last month'
    case 'within':
      return `made in the last ${manyOf(made.days, 'day')}`
    case 'before':
      return `made more than ${manyOf(made.days, 'day')} ago`
  }
}

/** What an order finds, in words that follow «finds». */
export function findsWords({ finds, does }: Pick<OrderDefinition, 'finds' | 'does'>): string {
  const where = finds.conditions.length ? ` where ${conditionsWords({ conditions: finds.conditions })}` : ''
  if (finds.what === 'savings') return `savings of the kind ${finds.detectors.map(one => detectorOf(one).label).join(' or ')}${where}`
  const without = does.deed === 'tag' || does.deed === 'tag owner' ? ` without the tag ${does.key}` : ''
  const made = finds.made ? `, ${madeWords(finds.made)}` : ''
  const cost = finds.costAtLeast ? `, that cost ${finds.costAtLeast} a month or more` : ''
  return `resources${without}${where}${made}${cost}`
}

/** What an order does, in words that follow «it»: `sets the tag owner to the person who made it`. */
export function doesWords(does: Does): string {
  switch (does.deed) {
    case 'tag':
      return `sets the tag ${does.key} to «${does.value.text}»`
    case 'tag owner':
      return `sets the tag ${does.key} to whoever made it`
    case 'notify':
      return `writes to its owner${does.by === 'chat' ? ' in the chat' : ''}, once about each`
    case 'act':
      return 'acts on it; what cannot be undone waits for a person'
  }
}

/** What starts an order, in words. */
export function startsWords(starts: Starts): string {
  switch (starts.by) {
    case 'person':
      return 'when somebody asks'
    case 'schedule':
      return `every ${starts.every.count === 1 ? starts.every.unit : manyOf(starts.every.count, starts.every.unit)}`
    case 'event':
      return 'when something is made, within a minute, and once a day'
  }
}

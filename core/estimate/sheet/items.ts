import type { Component, Estimate } from '../estimate'
import type { PricedEstimate } from '../pricing/priced'
import { replacedText } from '../scenarios/equivalent'
import { partsOf } from './edit-rows'
import type { Notice } from './notices'

/** Something that is said below a row. */
type Said = {
  is: 'said'
  component: Component
  text: string
  bad: boolean
  duplicateOf?: string
  instead?: { field: string; value: string; label: string }
  rate?: string
}
/** What the sheet shows from top to bottom. */
export type SheetItem = { key: string } & (
  { is: 'part'; part: string } | { is: 'row'; component: Component } | Said | { is: 'opened'; component: Component }
)

/** The rows of a sheet by their parts, below each what keeps it from being counted, what it was replaced by, what is worth knowing. */
export function sheetItems(
  estimate: Pick<Estimate, 'components'>,
  priced: PricedEstimate,
  notices: readonly Notice[],
  opened: string | null,
): SheetItem[] {
  const noticesOf = new Map<string, Notice[]>()
  for (const notice of notices) noticesOf.set(notice.component, [...(noticesOf.get(notice.component) ?? []), notice])
  const itemsOf = (component: Component): SheetItem[] => [
    { key: component.id, is: 'row', component },
    ...problemsOf(component, priced),
    ...(noticesOf.get(component.id) ?? []).map(({ text, duplicateOf }, i): SheetItem => ({
      ...{ key: `${component.id} notice ${i}`, is: 'said', component, text, bad: false, duplicateOf },
    })),
    ...(opened === component.id ? [{ key: `${component.id} opened`, is: 'opened' as const, component }] : []),
  ]
  return partsOf(estimate).flatMap((part): SheetItem[] => [
    { key: `part ${part}`, is: 'part', part },
    ...estimate.components.filter(row => row.part === part).flatMap(itemsOf),
  ])
}

function problemsOf(component: Component, priced: PricedEstimate): SheetItem[] {
  const row = priced.byId.get(component.id)
  if (!row) return []
  const until = row.notOffered
    ? 'The row is not counted in this scenario; choose another value for it here, or leave it out.'
    : 'The row is not counted until this fits.'
  const problems = Object.entries(row.problems).map(([field, text]): SheetItem => ({
    ...{ key: `${component.id} ${field}`, is: 'said', component, text: `${asSentence(text)}. ${until}`, bad: true },
    ...(row.refusal?.instead && { instead: { field: row.refusal.field, ...row.refusal.instead } }),
    ...(row.refusal?.give && { rate: row.refusal.give.rate }),
  }))
  if (!row.replaced.length) return problems
  const text = `In ${row.place!.region}: ${replacedText(row.replaced)}.`
  return [...problems, { key: `${component.id} replaced`, is: 'said', component, text, bad: false }]
}

const asSentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

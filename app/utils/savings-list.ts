import type { Listed } from '../../core/opportunity/grouped'
import type { FinderView, OpportunityState, OpportunityView } from '../../shared/contracts/savings'

/** Which states a list shows. */
export const stateChoices = [
  { value: 'open', label: 'not done yet', states: ['spotted', 'agreed', 'under way'] },
  { value: 'spotted', label: 'spotted and not decided', states: ['spotted'] },
  { value: 'agreed', label: 'agreed or under way', states: ['agreed', 'under way'] },
  { value: 'aside', label: 'set aside', states: ['set aside'] },
  { value: 'done', label: 'done', states: ['done', 'measured'] },
  { value: 'gone', label: 'gone by itself', states: ['gone'] },
  { value: 'all', label: 'in any state', states: null },
] as const satisfies readonly { value: string; label: string; states: readonly OpportunityState[] | null }[]
export type StateChoice = (typeof stateChoices)[number]['value']

/** An opportunity in the list of the page. */
export type ListedOpportunity = OpportunityView & Listed

/** What the page's address narrows the list to. */
export type SavingsNarrowing = { detector: string | null; centre: string | null; state: StateChoice }
/** Stands for money that nobody owns. */
export const NO_CENTRE = ' none'

/** Opportunities as the list shows them, narrowed. What is done is told in what was promised, where that is in the list's currency. */
export function listedOf(
  opportunities: readonly OpportunityView[],
  finders: readonly FinderView[],
  currency: string | null,
  { detector, centre, state }: SavingsNarrowing,
): ListedOpportunity[] {
  const labels = new Map(finders.map(one => [one.detector, one.label]))
  const states: readonly string[] | null = stateChoices.find(({ value }) => value === state)!.states
  const open: readonly string[] = stateChoices[0].states
  return opportunities
    .filter(one => (detector === null || one.detector === detector) && (states === null || states.includes(one.state)))
    .filter(one => centre === null || (centre === NO_CENTRE ? one.centre === null : one.centre === centre))
    .map(one => ({
      ...one,
      detectorLabel: labels.get(one.detector) ?? one.detector,
      saved: open.includes(one.state) ? one.counted : one.currency === currency ? one.monthlySaving : null,
    }))
}

/** The values of some rows that a group's line has room for. */
export function placesOf(values: readonly (string | null)[], most = 2): string {
  const counts = new Map<string, number>()
  for (const value of values) if (value) counts.set(value, (counts.get(value) ?? 0) + 1)
  const names = [...counts].sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1)).map(([name]) => name)
  return names.length > most ? `${names.slice(0, most).join(', ')} and ${names.length - most} more` : names.join(', ')
}

/** Minutes of work as one says them. */
export const workText = (minutes: number): string => (minutes < 90 ? `${minutes} min` : `${Math.round(minutes / 6) / 10} h`)

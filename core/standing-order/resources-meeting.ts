import type { Condition } from '../allocation/condition'
import { ownersOfCharged, whose, type ResourceFacts, type Rules } from '../allocation/whose'
import type { Cube } from '../spend/cube'
import { groupCharges } from '../spend/group'
import { addDays, type Day } from '../time/day'

/** What is asked for: resources that meet conditions on a day; of those named, or, with null, of all that are charged since a day. */
export type MeetingAsked = { conditions: Condition[]; since: Day; day: Day; resources: ResourceFacts[] | null }

/** Conditions as the one rule that there is: what it catches meets them. */
const asRule = (conditions: Condition[]): Rules => ({ rules: [{ id: 'meets', conditions, target: 'meets' }], centres: [] })

/**
 * Resources whose newest charges meet conditions, asked in the way in which rules of allocation are: with aliases, inherited tags and
 * lookups. @returns their ids, sorted.
 */
export function chargedMeeting(cube: Cube, conditions: Condition[], { since, day }: { since: Day; day: Day }): string[] {
  if (!conditions.length) {
    const question = { start: since, end: addDays(day, 1), keep: {}, leaveOut: {}, splitBy: ['ResourceId'], grain: null, measures: [] }
    const { values, codes } = groupCharges(cube, question)
    return [...new Set(codes[0])].flatMap(code => values[0]![code] ?? []).sort()
  }
  return caught(ownersOfCharged(cube, asRule(conditions), null, day, since))
}

/** The same of named resources: by their charges, or, where there are none, by what is said of them. */
export const namedMeeting = (cube: Cube, conditions: Condition[], resources: readonly ResourceFacts[], day: Day): string[] =>
  conditions.length ? caught(whose(cube, asRule(conditions), resources, day)) : [...new Set(resources.map(({ id }) => id))].sort()

const caught = (owners: ReadonlyMap<string, unknown>) => [...owners].flatMap(([id, owner]) => (owner === null ? [] : [id])).sort()

import { centresWithin } from '../../core/allocation/tree'
import { currentPlan } from '../stores/organisation'
import type { Work } from './work'

/**
 * Tells whether what people have made, which may show what they see, is for whoever asks: where they see all that each of its makers sees.
 * What only the makers of a whole company have made is handed to others by a link or a file.
 */
export async function madeFor({
  database,
  people,
  asker,
}: Pick<Work, 'database' | 'people' | 'asker'>): Promise<(makers: readonly string[]) => boolean> {
  const { bound } = asker
  if (!bound) return () => true
  const within = centresWithin((await currentPlan(database.db))?.plan.centres ?? [], bound)
  return makers =>
    makers.every(maker => {
      if (maker === asker.id) return true
      const seen = people.actingFor(maker).bound
      return seen !== null && seen.centres.length > 0 && seen.centres.every(centre => within.has(centre))
    })
}

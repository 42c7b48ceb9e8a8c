import type { Announced, Arrivals } from './arrivals'
import type { ArrivedFile } from './load-row'
import type { TakenIn } from './take-in'

/**
 * Takes a delivery whole: makes its load, receives its files one after the other into the load's folder, and queues it. What does not
 * arrive leaves nothing.
 * @param receive takes in the file of a place for a path.
 * @returns the load's id.
 */
export async function deliver(
  arrivals: Arrivals,
  announced: Announced,
  receive: (path: string, number: number) => Promise<TakenIn>,
): Promise<string> {
  const id = await arrivals.announce(announced)
  try {
    const files: ArrivedFile[] = []
    for (const number of announced.files.keys()) {
      const { file, keep } = await receive(arrivals.inbox.path(id, number), number)
      await keep()
      files.push(file)
    }
    await arrivals.arrived(id, files)
  } catch (error) {
    await arrivals.forget(id)
    throw error
  }
  return String(id)
}

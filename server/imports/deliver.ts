import type { Announced, ArrivedFile, Importer } from './importer'

/**
 * Takes a delivery whole: makes its load, receives its files one after the other into the load's folder, and queues it. What does not
 * arrive
 * leaves nothing.
 * @param receive puts the file of a place to a path, and says what came.
 * @returns the load's id.
 */
export async function deliver(
  importer: Pick<Importer, 'announce' | 'arrived' | 'forget' | 'inbox'>,
  announced: Announced,
  receive: (path: string, number: number) => Promise<ArrivedFile>,
): Promise<string> {
  const id = await importer.announce(announced)
  try {
    const files: ArrivedFile[] = []
    for (const number of announced.files.keys()) files.push(await receive(importer.inbox.path(id, number), number))
    await importer.arrived(id, files)
  } catch (error) {
    await importer.forget(id)
    throw error
  }
  return String(id)
}

import type { ImportStatus } from '../../shared/contracts/imports'
import type { Running } from './server'

/** Sends one file and waits for what becomes of it. */
export async function deliver(server: Running, source: string, bytes: string | Buffer): Promise<ImportStatus> {
  const { id } = await server.json<{ id: string }>(`imports?source=${encodeURIComponent(source)}`, {
    method: 'POST',
    body: typeof bytes === 'string' ? bytes : new Uint8Array(bytes),
  })
  return ended(server, id)
}

export async function ended(server: Running, id: string): Promise<ImportStatus> {
  for (;;) {
    const status = await server.json<ImportStatus>(`imports/${id}`)
    if (status.state !== 'checking' && status.state !== 'loading') return status
    await new Promise(resolve => setTimeout(resolve, 30))
  }
}

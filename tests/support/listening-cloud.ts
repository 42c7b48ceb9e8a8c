import { rmSync } from 'node:fs'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { cloudServer } from '../../stand-ins/cloud/server'

/** A stand-in cloud on a port of its own. */
export type ListeningCloud = { base: string; behave: (how: object) => Promise<unknown>; close: () => void }

/**
 * Starts a stand-in cloud that keeps its state in a folder.
 * @param meet sees each request before the cloud does; how the cloud is to behave to it, or nothing.
 */
export async function listeningCloud(
  folder: string,
  meet: (request: IncomingMessage) => object | null = () => null,
): Promise<ListeningCloud> {
  const file = join(folder, 'cloud.json')
  const cloud = cloudServer(file)
  const [handle] = cloud.listeners('request') as ((request: IncomingMessage, response: ServerResponse) => void)[]
  cloud.removeAllListeners('request')
  cloud.on('request', (request: IncomingMessage, response: ServerResponse) => {
    const how = meet(request)
    if (how === null) handle!(request, response)
    else void behave(how).then(() => handle!(request, response))
  })
  await new Promise<void>(resolve => cloud.listen(0, '127.0.0.1', resolve))
  const base = `http://127.0.0.1:${(cloud.address() as AddressInfo).port}`
  const behave = (how: object) => fetch(`${base}/v1/behaviour`, { method: 'POST', body: JSON.stringify(how) })
  return {
    base,
    behave,
    close() {
      cloud.closeAllConnections()
      cloud.close()
      rmSync(file, { force: true })
    },
  }
}

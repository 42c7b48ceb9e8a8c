import type { BlindSpot } from './blind-spot'

/** Servers, but no disk for them. */
export const noDisk: BlindSpot = {
  id: 'no-disk',
  find({ components }) {
    const servers = components.filter(c => c.kind === 'server' && c.inputs.count !== '0')
    if (!servers.length || components.some(c => c.kind === 'disk')) return null
    const count = servers.reduce((n, c) => n + Number(c.inputs.count ?? 1), 0)
    return { title: 'Servers without a disk', reason: `${count} ${count === 1 ? 'server has' : 'servers have'} to start from something; a disk is charged by its size, also while the server is off`, add: { part: servers[0]!.part, kind: 'disk', inputs: { storageGb: '80', count: String(count) } } }
  },
}

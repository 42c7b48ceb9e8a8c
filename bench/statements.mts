// How long 300 statements take as one document, and as a table: `npm run bench:statements`, on the built server. Each cost centre has charges of
// ten services and bears of two pools.
import { allocationPlanSchema } from '../core/allocation/plan'
import { charge, focusCsv } from '../tests/support/charges'
import { deliver } from '../tests/support/imports'
import { post, startServer } from '../tests/support/server'

const CENTRES = 300
const SERVICES = 10
const plan = allocationPlanSchema.parse({
  centres: Array.from({ length: CENTRES }, (_, i) => ({ id: `c${i}`, name: `Centre ${i}`, parent: i ? 'c0' : null, owner: null })),
  pools: ['direct cost', 'even'].map(method => ({ id: `pool ${method}`, name: `Pool ${method}`, method })),
  rules: [
    ...Array.from({ length: CENTRES }, (_, i) => ({
      ...{ id: `r${i}`, target: `c${i}` },
      conditions: [{ dimension: 'Tags/team', values: [`team-${i}`] }],
    })),
    ...['direct cost', 'even'].map(method => ({
      ...{ id: method, target: `pool ${method}` },
      conditions: [{ dimension: 'SubAccountName', values: [method] }],
    })),
  ],
})
const server = await startServer()
try {
  await server.json('organisation', post({ people: [], plan }))
  const lines = Array.from({ length: CENTRES * SERVICES }, (_, i) =>
    charge({
      ...{ BilledCost: String(1 + (i % 97)), ServiceName: `Service ${i % SERVICES}` },
      Tags: JSON.stringify({ team: `team-${Math.floor(i / SERVICES)}` }),
    }),
  )
  const shared = ['direct cost', 'even'].map(name => charge({ BilledCost: '1000', SubAccountName: name }))
  await deliver(server, 'bench', focusCsv([...lines, ...shared]))
  for (const format of ['pdf', 'xlsx', 'csv', 'journal']) {
    const begun = performance.now()
    const reply = await server.call(`allocation/statements/${format}?month=2026-10&measure=billedCost`)
    const bytes = (await reply.arrayBuffer()).byteLength
    console.log(`${format.padEnd(8)} ${(performance.now() - begun).toFixed(0).padStart(6)} ms, ${(bytes / 1024).toFixed(0)} KB`)
    if (!reply.ok) throw new Error(`${format}: ${reply.status}`)
  }
} finally {
  await server.stop()
}

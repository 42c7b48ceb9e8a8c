// Which part of the code may know which, type imports included: `npm run arrows`. What a layer or a room may import is what stands to the
// right of it; everything else of the product is forbidden to it. Within a layer, a room knows those that stand before it.
const product = '^(app|core|server|shared|demo|stand-ins|bench|tests|scripts)/'
const layer = (from, ...to) => ({
  name: `${from} knows only what is below it`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: product, pathNot: [from, ...to].map(one => `^${one}/`) },
})
/** Rooms of a layer, the lowest first: none knows one that stands after it. */
const rooms = (folder, ...names) =>
  names
    .slice(0, -1)
    .map((name, place) => ({
      name: `${folder}/${name} knows only the rooms below it`,
      severity: 'error',
      from: { path: `^${folder}/${name}(/|\\.ts)` },
      to: { path: names.slice(place + 1).map(above => `^${folder}/${above}(/|\\.ts)`) },
    }))

const core = ['text', 'time', 'money', 'working', 'focus', 'ratecard', 'spend', 'uplift', 'allocation', 'estimate', 'opportunity']
const server = [
  ...['json-bytes', 'problems', 'db', 'observed', 'stores', 'people', 'operations', 'charges', 'connectors', 'exports', 'imports'],
  ...['use-cases', 'jobs', 'maintenance', 'bodies', 'services', 'engines', 'http', 'middleware', 'plugins', 'api', 'workers', 'cli'],
]

export default {
  forbidden: [
    layer('core'),
    layer('shared', 'core'),
    layer('app', 'shared', 'core'),
    layer('server', 'shared', 'core'),
    layer('demo', 'core'),
    layer('stand-ins', 'core', 'demo'),
    ...rooms('core', ...core),
    ...rooms('server', ...server),
    {
      name: 'routes have the engines that they are handed',
      severity: 'error',
      from: { path: '^server/api/' },
      to: { path: '^server/', pathNot: ['^server/api/', '^server/http/', '^server/operations/', '^server/problems/'] },
    },
    { name: 'no circles', severity: 'error', from: { path: '^(app|core|server|shared)/' }, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(node_modules|\\.nuxt|\\.output)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.tools.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.vue', '.mjs'] },
    cache: false,
  },
}

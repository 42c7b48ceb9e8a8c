// Which part of the code may know which, type imports included: `npm run arrows`. What a layer or a room may import is what stands to the
// right of it; everything else of the product is forbidden to it.
const product = '^(app|core|server|shared|demo|stand-ins|bench|tests|scripts)/'
const layer = (from, ...to) => ({
  name: `${from} knows only what is below it`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: product, pathNot: [from, ...to].map(one => `^${one}/`) },
})
export default {
  forbidden: [
    layer('core'),
    layer('shared', 'core'),
    layer('app', 'shared', 'core'),
    layer('server', 'shared', 'core'),
    layer('demo', 'core'),
    layer('stand-ins', 'core', 'demo'),
    { name: 'no circles', severity: 'error', from: {}, to: { circular: true } },
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

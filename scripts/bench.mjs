// `npm run bench`: builds and writes the demo's files where they are missing, then measures.
import { existsSync } from 'node:fs'
import { install, npx } from './install.mjs'

install()
if (!existsSync('.output/server/index.mjs')) npx(['nuxt', 'build'])
if (!existsSync('.data/bench/files/deliveries.json')) npx(['tsx', 'demo/write.ts', '.data/bench/files'])
npx(['tsx', 'bench/bench.ts'])
npx(['tsx', 'bench/estimating.ts'])

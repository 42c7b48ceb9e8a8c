// `npm run bench`: builds where it is missing, then measures. `npm run bench -- 2 10` reads the demo company twice and ten times over
// (about 1 000 000 and 5 000 000 charges); without numbers once.
import { existsSync } from 'node:fs'
import { install, npx } from './install.mjs'

install()
if (!existsSync('.output/server/index.mjs')) npx(['nuxt', 'build'])
const sizes = process.argv.slice(2).length ? process.argv.slice(2) : ['1']
for (const copies of sizes) npx(['tsx', 'bench/spend.mts', copies])
npx(['tsx', 'bench/draw.mts'])
npx(['tsx', 'bench/estimating.ts'])

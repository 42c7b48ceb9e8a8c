import { defineConfig } from 'vitest/config'

/** What `npm run mutate` runs against each change of the code: the tests that need no server. */
export default defineConfig({
  test: { include: ['tests/unit/**/*.test.ts', 'tests/reference/**/*.test.ts'], environment: 'node', testTimeout: 60_000 },
})

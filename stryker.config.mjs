// `npm run mutate`: changes the code in a small way, one way at a time, and sees whether a test notices. What was tried before and has not
// changed is not tried again. `npm run mutate -- --mutate 'core/money/**/*.ts'` tries some of it. Not part of `npm test`: it takes hours.
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'vitest.mutate.config.ts' },
  mutate: [
    'core/money/**/*.ts',
    'core/ratecard/**/*.ts',
    'core/estimate/pricing/price-*.ts',
    'core/estimate/pricing/ways-to-pay.ts',
    'core/spend/sums.ts',
    'core/spend/answer.ts',
    'core/spend/compare.ts',
    'core/allocation/**/*.ts',
    'core/opportunity/**/*.ts',
  ],
  ignorePatterns: ['!.nuxt', '.output', '.data', '.tests', '.mutants', 'app', 'docs', 'public', 'bench/results'],
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  incremental: true,
  incrementalFile: '.mutants/known.json',
  tempDirName: '.mutants/tmp',
  reporters: ['clear-text', 'json'],
  clearTextReporter: { allowColor: false, reportTests: false, logTests: false },
  jsonReporter: { fileName: '.mutants/report.json' },
  allowConsoleColors: false,
  concurrency: 2,
  thresholds: { high: 95, low: 85, break: 85 },
}

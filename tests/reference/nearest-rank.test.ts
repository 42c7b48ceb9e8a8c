// The 95th of a hundred hours, held against a database that has discrete quantiles, and against the worked example of the nearest rank.
import { DuckDBInstance } from '@duckdb/node-api'
import { expect, it } from 'vitest'
import { quantile } from '../../core/measured/quantile'

// Source: DuckDB in the registry; its quantile_disc is the discrete quantile of the SQL standard (PERCENTILE_DISC): the first value at
// whose place in order the share of values is no less than asked for.
it('is the discrete quantile that DuckDB finds, for lists of one to sixty values and every percent', async () => {
  const connection = await (await DuckDBInstance.create()).connect()
  const lists = Array.from({ length: 60 }, (_, n) => Array.from({ length: n + 1 }, (__, i) => (i * 37 + n * 11) % 101))
  const percents = [1, 5, 33, 50, 66, 90, 95, 99, 100]
  for (const list of lists) {
    const values = list.map(value => `(${value})`).join(',')
    const columns = percents.map(percent => `quantile_disc(v, ${percent / 100})`).join(',')
    const [row] = (await connection.runAndReadAll(`select ${columns} from (values ${values}) as t(v)`)).getRows()
    expect(percents.map(percent => quantile(Float32Array.from(list), percent))).toEqual(row!.map(Number))
  }
})

// Source: the worked example of the nearest-rank method (five values 15, 20, 35, 40, 50), recalled from memory.
it('is what the worked example of the nearest rank says', () => {
  const values = Float32Array.of(15, 20, 35, 40, 50)
  expect([5, 30, 40, 50, 100].map(percent => quantile(values, percent))).toEqual([15, 20, 20, 35, 50])
})

/** How files end that can be dropped on Sources: bills, rate cards, cost centres, people. What a file is, its contents say. */
export const readableEndings = ['.csv', '.gz', '.json', '.parquet', '.txt', '.tsv'] as const

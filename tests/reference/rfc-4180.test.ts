// RFC 4180, section 2: the seven rules, each with the RFC's own example or one like it.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { readRecords } from '../support/records'

const folder = mkdtempSync(join(tmpdir(), 'rain-barrel-rfc-'))
afterAll(() => rmSync(folder, { recursive: true }))
async function read(text: string): Promise<string[][]> {
  writeFileSync(join(folder, 'f.csv'), text)
  return readRecords(join(folder, 'f.csv'))
}

it.each<[string, string, string[][]]>([
  [
    '1: a record a line, delimited by CRLF',
    'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
    [
      ['aaa', 'bbb', 'ccc'],
      ['zzz', 'yyy', 'xxx'],
    ],
  ],
  [
    '2: the last record may lack its line break',
    'aaa,bbb,ccc\r\nzzz,yyy,xxx',
    [
      ['aaa', 'bbb', 'ccc'],
      ['zzz', 'yyy', 'xxx'],
    ],
  ],
  [
    '3: a header has the same form',
    'field_name,field_name2\r\naaa,bbb\r\n',
    [
      ['field_name', 'field_name2'],
      ['aaa', 'bbb'],
    ],
  ],
  ['4: spaces belong to the field', 'aaa, bbb ,ccc\r\n', [['aaa', ' bbb ', 'ccc']]],
  [
    '5: fields may be in double quotes',
    '"aaa","bbb",ccc\r\nzzz,yyy,xxx\r\n',
    [
      ['aaa', 'bbb', 'ccc'],
      ['zzz', 'yyy', 'xxx'],
    ],
  ],
  [
    '6: quoted fields may hold line breaks, quotes and commas',
    '"aaa","b\r\nbb","c,cc"\r\nzzz,yyy,xxx\r\n',
    [
      ['aaa', 'b\r\nbb', 'c,cc'],
      ['zzz', 'yyy', 'xxx'],
    ],
  ],
  ['7: a quote in a quoted field is doubled', '"aaa","b""bb","ccc"\r\n', [['aaa', 'b"bb', 'ccc']]],
])('rule %s', async (_, text, records) => {
  expect(await read(text)).toEqual(records)
})

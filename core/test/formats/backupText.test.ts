import { strFromU8, strToU8, unzipSync } from 'fflate'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { backupInZip, backupText, readingBackupText, zippingShelf } from '../../src/formats/index.ts'
import { BACKUP_FORMAT, BACKUP_TABLES, type Backup } from '../../src/schema/index.ts'
import { finish } from '../../src/turns.ts'

/** Rows with whatever a text may hold: lines, brackets, what the file itself begins and ends its tables with. */
const text = fc.oneof(
  fc.string(),
  fc.constantFrom('],', '}}', '"rows":{', 'a\nb', '"tunes":[', '\u2028', 'constructor'),
)
const row = fc.record({ id: text, value: fc.oneof(fc.integer(), text, fc.array(text, { maxLength: 3 })) })
const backups: fc.Arbitrary<Backup> = fc
  .record(Object.fromEntries(BACKUP_TABLES.map((t) => [t, fc.array(row, { maxLength: 3 })])))
  .map((rows) => ({
    ...{ format: BACKUP_FORMAT, version: 1, tables: 10, madeAt: '2026-01-01T10:00:00.000Z' },
    prefs: { note: 'a "rows":{ of\nlines' },
    rows: rows as unknown as Backup['rows'],
  }))

const bytesOf = (backup: Backup) => strToU8([...backupText(backup)].join(''))
const read = (bytes: Uint8Array) => finish(readingBackupText(bytes))

describe('the text of a backup', () => {
  it('is JSON, with a line for each row, and comes back row by row as it was', () => {
    fc.assert(
      fc.property(backups, (backup) => {
        const bytes = bytesOf(backup)
        expect(JSON.parse(strFromU8(bytes))).toEqual(backup)
        expect(read(bytes)).toEqual(backup)
        const rows = BACKUP_TABLES.reduce((sum, t) => sum + backup.rows[t].length, 0)
        expect(
          strFromU8(bytes)
            .split('\n')
            .filter((l) => l.startsWith('{')).length,
        ).toBe(rows + 1)
      }),
    )
  })

  it('is read in one piece too, as it was written before', () => {
    fc.assert(
      fc.property(backups, (backup) => {
        expect(read(strToU8(JSON.stringify(backup)))).toEqual(backup)
        expect(read(strToU8(JSON.stringify(backup, null, 2)))).toEqual(backup)
      }),
    )
  })

  it('that is cut off anywhere is refused: half a shelf never passes for a whole one', () => {
    fc.assert(
      fc.property(backups, fc.double({ min: 0, max: 0.999, noNaN: true }), (backup, share) => {
        const bytes = bytesOf(backup)
        // The last line says that all is there.
        const cut = bytes.subarray(0, Math.floor((bytes.length - 3) * share))
        expect(() => read(cut)).toThrow(SyntaxError)
      }),
    )
  })

  it('that was written over in the middle is refused', () => {
    const backup = { ...fc.sample(backups, { numRuns: 1, seed: 3 })[0]! }
    const lines = [...backupText(backup)]
    expect(() => read(strToU8(lines.toSpliced(3, 0, 'half a row\n').join('')))).toThrow(SyntaxError)
    expect(() => read(strToU8(lines.toSpliced(1, 0, '{"id":"nowhere"}\n').join('')))).toThrow(SyntaxError)
  })

  it('lies in its zip as it is, and is known by its first name', () => {
    fc.assert(
      fc.property(backups, (backup) => {
        const zip = finish(zippingShelf(bytesOf(backup)))
        expect(backupInZip(zip)).toEqual(bytesOf(backup))
        expect(Object.keys(unzipSync(zip))[0]).toBe('everything.json')
      }),
      { numRuns: 20 },
    )
  })
})

// @vitest-environment jsdom
import './support.ts'
import { cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { db } from '../src/state/db.ts'
import { useLogOnceRead, writeEntry } from '../src/state/logs.ts'

const entry = (bpm: number) => ({ day: '2026-01-02', piece: 1, bpm, clean: 3, minutes: 5, note: '' })

beforeEach(() => Promise.all(db.tables.map((t) => t.clear())))
afterEach(cleanup)

it('a log is never taken for that of whoever is asked about next', async () => {
  await writeEntry('t', 'wren', 'phrase', entry(72))
  await writeEntry('t', 'tove', 'phrase', entry(96))
  const seen: (readonly [string, number | undefined])[] = []
  const { rerender } = renderHook(
    ({ of }) => {
      const read = useLogOnceRead('t', of)
      if (read) seen.push([of, read.log?.entries[0]?.bpm])
      return read
    },
    { initialProps: { of: 'wren' } },
  )
  await waitFor(() => expect(seen).toContainEqual(['wren', 72]))
  rerender({ of: 'tove' })
  await waitFor(() => expect(seen).toContainEqual(['tove', 96]))
  rerender({ of: 'nobody' })
  await waitFor(() => expect(seen).toContainEqual(['nobody', undefined]))
  const wrong = seen.filter(([of, bpm]) => bpm !== { wren: 72, tove: 96 }[of])
  expect(wrong.filter(([of]) => of !== 'nobody')).toEqual([])
  expect(seen.filter(([of, bpm]) => of === 'nobody' && bpm !== undefined)).toEqual([])
})

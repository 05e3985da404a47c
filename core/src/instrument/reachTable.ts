import { reach } from './geometry.ts'
import type { Instrument } from './instrument.ts'

/**
 * Every reach of a neck in mm, measured once: finding shapes asks for millions of them.
 * Index by `reachAt`.
 */
export interface ReachTable {
  readonly strings: number
  readonly frets: number
  readonly mm: Float64Array
}

const tables = new WeakMap<Instrument, ReachTable>()

export function reachTable(instrument: Instrument): ReachTable {
  const known = tables.get(instrument)
  if (known) return known
  const frets = instrument.frets + 1
  const { strings } = instrument
  const mm = new Float64Array(strings * frets * frets)
  for (let across = 0; across < strings; across++)
    for (let a = 0; a < frets; a++)
      for (let b = 0; b < frets; b++)
        mm[(across * frets + a) * frets + b] = reach(
          instrument,
          { string: 1, fret: a },
          { string: 1 + across, fret: b },
        )
  const table = { strings, frets, mm }
  tables.set(instrument, table)
  return table
}

/** Reach in mm between two places, `across` strings apart, at frets counted from the nut. */
export function reachAt(table: ReachTable, across: number, fretA: number, fretB: number): number {
  return table.mm[(Math.abs(across) * table.frets + fretA) * table.frets + fretB]!
}

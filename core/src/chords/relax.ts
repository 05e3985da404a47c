import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import type { Setup } from '../instrument/setup.ts'
import { findShapes } from './findShapes.ts'
import type { ShapeFilters } from './shapeQuery.ts'

export type ShapeFilterName = keyof ShapeFilters

/**
 * When wishes leave nothing: which single wish, given up, lets shapes through, the one with the most first. Empty when
 * no single one helps (or the chord has no shape in this tuning at all).
 */
export function filtersToRelax(setup: Setup, chord: ChordReading, wishes: ShapeFilters): ShapeFilterName[] {
  const names = (Object.keys(wishes) as ShapeFilterName[]).filter((name) => {
    const value = wishes[name]
    return value !== undefined && value !== false && !(Array.isArray(value) && value.length === 0)
  })
  return names
    .map((name) => {
      const rest = Object.fromEntries(Object.entries(wishes).filter(([key]) => key !== name)) as ShapeFilters
      const rows = findShapes(setup, chord, rest).zones.reduce((n, z) => n + z.rows.length, 0)
      return { name, rows }
    })
    .filter((r) => r.rows > 0)
    .sort((a, b) => b.rows - a.rows)
    .map((r) => r.name)
}

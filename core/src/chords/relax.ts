import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import type { Setup } from '../instrument/setup.ts'
import { findShapes } from './findShapes.ts'
import type { ShapeFilters } from './shapeQuery.ts'

export type ShapeFilterName = keyof ShapeFilters

/**
 * When filters leave nothing: which single filter, given up, lets shapes through, the one with the most first. Empty when
 * no single one helps (or the chord has no shape in this tuning at all).
 */
export function filtersToRelax(setup: Setup, chord: ChordReading, filters: ShapeFilters): ShapeFilterName[] {
  const names = (Object.keys(filters) as ShapeFilterName[]).filter((name) => {
    const value = filters[name]
    return value !== undefined && value !== false && !(Array.isArray(value) && value.length === 0)
  })
  return names
    .map((name) => {
      const rest = Object.fromEntries(Object.entries(filters).filter(([key]) => key !== name)) as ShapeFilters
      const rows = findShapes(setup, chord, rest).zones.reduce((n, z) => n + z.rows.length, 0)
      return { name, rows }
    })
    .filter((r) => r.rows > 0)
    .sort((a, b) => b.rows - a.rows)
    .map((r) => r.name)
}

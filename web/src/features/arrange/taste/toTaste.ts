import type { Region, TasteInForce } from '@velvet-porch/core/document'

/** Sections as somebody's taste has them; undefined is the house's. */
export const toTaste = (regions: readonly Region[], taste: TasteInForce | undefined): Region[] =>
  regions.map(({ taste: _, ...region }) => (taste && !region.given ? { ...region, taste } : region))

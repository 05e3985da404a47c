/** Ticks to x: one contract for staff, tab, cursor and print. */
export {
  type Column,
  hit,
  layOut,
  type LayoutMeasure,
  type LayoutOptions,
  type PlacedMeasure,
  type SystemLayout,
  xAt,
} from './systems.ts'

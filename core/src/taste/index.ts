/** A teacher's taste: what was taken over what, what can be made out of it, and what it says when something is arranged. */
export {
  offeredWays,
  type Case,
  type Comparison,
  type HabitComparison,
  type LeftOutComparison,
  type OfferedWay,
  type ShapeComparison,
  type WayComparison,
} from './comparison.ts'
export { fitTaste, type TasteFit } from './fitTaste.ts'
export { countsOf, priceOfCounts, type TasteCounts } from './momentCounts.ts'
export { noticesOf, type TasteNotice } from './notices.ts'
export { readTasteShape, shapeFault, type TasteShapeProblem } from './tasteShape.ts'
export {
  keyOf,
  newTaste,
  TASTE_FORMAT,
  habitsInForce,
  tasteInForce,
  withComparisons,
  withEntry,
  type TasteDoc,
  type TasteEntry,
  type TasteFor,
  type TasteSays,
  type TasteScope,
} from './tasteDoc.ts'

import type { PinnedShape } from './tune.ts'

/**
 * What a taste may price, each counted where something is struck. Units:
 * `open` notes on open strings; `high` frets beyond the fourth of the highest note; `little` notes under the little finger; `thumb`
 * notes under the thumb over the neck; `spread` frets beyond three that a hand spans at once; `bassHigh` frets beyond the fourth of a
 * bass; `bassLow` basses on the two lowest strings; `fill` fills; `voices` notes of a chord beyond two; `inside` melody notes below
 * the two highest strings.
 */
export const TASTE_FEATURES = [
  'open',
  'high',
  'little',
  'thumb',
  'spread',
  'bassHigh',
  'bassLow',
  'fill',
  'voices',
  'inside',
] as const
export type TasteFeature = (typeof TASTE_FEATURES)[number]

/** Prices by feature, in the solver's unit of cost: what is avoided is dear, what is wanted has a price below nothing. */
export type TastePrices = Readonly<Partial<Record<TasteFeature, number>>>

/** A shape that somebody wants for a chord. */
export type TasteShape = Omit<PinnedShape, 'id'>

/** A taste as an arrangement was made with it. */
export interface TasteInForce {
  readonly name: string
  readonly prices: TastePrices
  readonly shapes: readonly TasteShape[]
}

/** Largest price of a feature, either way. */
export const MOST_TASTE_PRICE = 12

import { lazy, type ComponentType, type LazyExoticComponent } from 'react'
import { bringStages } from '../texts/i18n.ts'

/**
 * A part of the page whose code comes when it is first shown; until then its place belongs in a `Suspense`.
 *
 * @example
 * const RailHints = brought(async () => (await import('./RailHints.tsx')).RailHints)
 */
export const brought = <Props>(
  load: () => Promise<ComponentType<Props>>,
): LazyExoticComponent<ComponentType<Props>> => lazy(async () => ({ default: await load() }))

/** As `brought`, for a part that speaks of the work on a tune: the texts of the stages come with it. */
export const broughtWithTexts = <Props>(
  load: () => Promise<ComponentType<Props>>,
): LazyExoticComponent<ComponentType<Props>> =>
  brought(async () => (await Promise.all([load(), bringStages()]))[0])

import type { Day } from './day.ts'

/** How far a tune has come. */
export const TUNE_STATUSES = ['idea', 'arranging', 'teaching', 'repertoire'] as const
export type TuneStatus = (typeof TUNE_STATUSES)[number]

/** Whose a tune is. */
export const RIGHTS = ['unknown', 'traditional', 'own', 'licensed', 'protected'] as const
export type Rights = (typeof RIGHTS)[number]

/** Somebody who asked for a tune. */
export interface TuneRequest {
  readonly by: string
  readonly day: Day
}

/** What a teacher keeps of a tune beside the tune itself. */
export interface RepertoireEntry {
  /** The tune's. */
  readonly id: string
  readonly status: TuneStatus
  readonly source: string
  readonly rights: Rights
  readonly tags: readonly string[]
  readonly requests: readonly TuneRequest[]
  /** Days on which it was played or taught outside practice. */
  readonly lastPlayed?: Day
}

/** A tune of which nothing was written down yet. */
export const freshEntry = (id: string): RepertoireEntry => ({
  id,
  status: 'idea',
  source: '',
  rights: 'unknown',
  tags: [],
  requests: [],
})

/** Tunes that were asked for, the most wanted first, with whom. */
export function mostWanted(
  entries: readonly RepertoireEntry[],
): { readonly id: string; readonly by: readonly string[] }[] {
  return entries
    .filter((e) => e.requests.length > 0)
    .map((e) => ({ id: e.id, by: [...new Set(e.requests.map((r) => r.by))] }))
    .sort((a, b) => b.by.length - a.by.length || a.id.localeCompare(b.id))
}

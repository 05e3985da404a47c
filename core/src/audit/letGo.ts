import type { Ticks } from '../music/time/ticks.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'

/**
 * When a tab that ends on harmonics lets its last chord go for them: the hand cannot hold both. Undefined where it ends
 * otherwise.
 */
export function harmonicsAtEnd({ notes }: Pick<FinishedTab, 'notes'>): Ticks | undefined {
  const last = notes.reduce((at, n) => Math.max(at, n.start), 0)
  const struck = notes.filter((n) => n.start === last)
  return struck.length > 0 && struck.every((n) => n.harmonic !== undefined && n.role !== 'melody')
    ? last
    : undefined
}

/** True for a note that sounds where the last chord is let go. */
export const isLetGo = (
  { start, duration }: Pick<WrittenNote, 'start' | 'duration'>,
  at: Ticks | undefined,
): boolean => at !== undefined && start < at && start + duration > at

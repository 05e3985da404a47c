import type { Setup } from '../../instrument/setup.ts'
import type { Slice } from '../plan/plan.ts'
import { LEVEL_RULES } from './weights.ts'

/** Strings that one finger may lie across in a slice, for this hand. */
export const barreStrings = (
  { level, barres }: Pick<Slice, 'level' | 'barres'>,
  { player }: Setup,
): number => (player.techniques.barre && barres ? LEVEL_RULES[level].barreStrings : 1)

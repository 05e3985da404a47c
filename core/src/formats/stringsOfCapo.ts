import type { Setup } from '../instrument/setup.ts'

/** Which strings the capo stops. */
export function stringsOfCapo({ capo }: Pick<Setup, 'capo'>): 'none' | 'some' | 'all' {
  if (capo.every((c) => c === 0)) return 'none'
  return capo.every((c) => c === capo[0]) ? 'all' : 'some'
}

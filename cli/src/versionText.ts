import type { Change, EffortVersion } from '@velvet-porch/core/arrange'

/** What a version does otherwise. */
export function changeText(change: Change): string {
  switch (change.kind) {
    case 'plain':
      return 'every note plucked'
    case 'slides':
      return 'hammered on for slides'
    case 'stretch':
      return 'kinder shapes'
    case 'fills':
      return 'no fills'
    case 'bass':
      return 'one bass a chord'
    case 'chords':
      return 'two notes for a chord'
    case 'barre':
      return 'no barre'
    case 'octave':
      return change.octave > 0 ? 'an octave higher' : 'an octave lower'
    case 'level':
      return `level ${change.level}`
    case 'ornament':
      return change.ornament === 2 ? 'slurred' : 'ornate'
  }
}

/** Notes that a version has less or more than another, by role: "−8 bass, −3 fill". */
export function notesText(version: EffortVersion, now: EffortVersion): string {
  const parts = (['melody', 'bass', 'harmony', 'fill', 'ornaments'] as const).flatMap((role) => {
    const difference = version.notes[role] - now.notes[role]
    return difference === 0 ? [] : [`${difference > 0 ? '+' : '−'}${Math.abs(difference)} ${role}`]
  })
  return parts.join(', ') || (version.sameNotes ? 'the same notes' : 'as many notes')
}

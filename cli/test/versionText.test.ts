import { describe, expect, it } from 'vitest'
import { changeText, notesText } from '../src/versionText.ts'
import type { EffortVersion } from '@velvet-porch/core/arrange'

const version = (notes: Partial<EffortVersion['notes']>, sameNotes = false) =>
  ({ notes: { melody: 8, bass: 8, harmony: 0, fill: 3, ornaments: 0, ...notes }, sameNotes }) as EffortVersion

describe('an easier version on the command line', () => {
  it('says what it does otherwise', () => {
    expect(changeText({ kind: 'octave', octave: -1 })).toBe('an octave lower')
    expect(changeText({ kind: 'level', level: 2 })).toBe('level 2')
  })

  it('counts the notes that it has less or more, by role', () => {
    expect(notesText(version({ bass: 2, fill: 0 }), version({}))).toBe('−6 bass, −3 fill')
    expect(notesText(version({ harmony: 1 }), version({}))).toBe('+1 harmony')
    expect(notesText(version({}), version({}))).toBe('as many notes')
    expect(notesText(version({}, true), version({}))).toBe('the same notes')
  })
})

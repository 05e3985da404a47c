import type { NoteCount, Rung } from '@velvet-porch/core'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useChangeWords } from './useChangeWords.ts'

/** One version of measures: its effort, what it does otherwise, its figures beside those of now. */
export function RungLine({ rung, now, children }: { rung: Rung; now: Rung; children?: ReactNode }) {
  const { t } = useTranslation()
  const words = useChangeWords()
  return (
    <>
      <b>{rung.effort.toFixed(1)}</b>{' '}
      <span>
        {rung === now ? t('easier.now') : words(rung.changes)}
        <small>
          {t('easier.figures', { mm: rung.stretchMm, barres: rung.barres })}
          {rung.ceiling === undefined ? '' : `, ${t('easier.upTo', { bpm: rung.ceiling })}`}
          {rung === now ? '' : `; ${notesWords(t, rung, now.notes)}`}
        </small>
        {children}
      </span>
    </>
  )
}

type T = ReturnType<typeof useTranslation>['t']

function notesWords(t: T, { notes, sameNotes }: Rung, now: NoteCount): string {
  const parts = (['melody', 'bass', 'harmony', 'fill', 'ornaments'] as const).flatMap((role) => {
    const n = notes[role] - now[role]
    return n === 0 ? [] : [`${n > 0 ? '+' : '−'}${Math.abs(n)} ${t(`easier.roles.${role}`)}`]
  })
  return parts.join(', ') || t(sameNotes ? 'easier.sameNotes' : 'easier.asMany')
}

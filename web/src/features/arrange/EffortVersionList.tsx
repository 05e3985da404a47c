import type { TFunction } from 'i18next'
import { Group } from '@mantine/core'
import type { NoteCount, EffortVersion } from '@velvet-porch/core/arrange'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useChangeWords } from './useChangeWords.ts'

/**
 * Versions of measures by effort: each with what it does otherwise and its figures beside those of now.
 * @param tried the version that is looked at
 * @param actions what can be done with a version
 */
export function EffortVersionList({
  rungs,
  now,
  tried,
  actions,
}: {
  rungs: readonly EffortVersion[]
  now: EffortVersion
  tried: EffortVersion | undefined
  actions: (rung: EffortVersion) => ReactNode
}) {
  const { t } = useTranslation()
  const words = useChangeWords()
  return (
    <ol className="ladder">
      {rungs.map((rung, i) => (
        <li key={i} className={rung === now ? 'now' : rung === tried ? 'tried' : undefined}>
          <b>{rung.effort.toFixed(1)}</b>{' '}
          <span>
            {rung === now ? t('easier.now') : words(rung.changes)}
            <small>
              {t('easier.figures', { mm: rung.stretchMm, barres: rung.barres })}
              {rung.ceiling === undefined ? '' : `, ${t('easier.upTo', { bpm: rung.ceiling })}`}
              {rung === now ? '' : `; ${notesWords(t, rung, now.notes)}`}
            </small>
            {rung === now ? null : (
              <Group gap={4} mt={2}>
                {actions(rung)}
              </Group>
            )}
          </span>
        </li>
      ))}
    </ol>
  )
}

function notesWords(t: TFunction, { notes, sameNotes }: EffortVersion, now: NoteCount): string {
  const parts = (['melody', 'bass', 'harmony', 'fill', 'ornaments'] as const).flatMap((role) => {
    const n = notes[role] - now[role]
    return n === 0 ? [] : [`${n > 0 ? '+' : '−'}${Math.abs(n)} ${t(`easier.roles.${role}`)}`]
  })
  return parts.join(', ') || t(sameNotes ? 'easier.sameNotes' : 'easier.asMany')
}

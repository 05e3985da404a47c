import type { TFunction } from 'i18next'
import { Group } from '@mantine/core'
import type { NoteCount, EffortVersion } from '@velvet-porch/core/arrange'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useChangeWords } from './useChangeWords.ts'
import css from './EffortVersionList.module.css'

/**
 * Versions of measures by effort: each with what it does otherwise and its figures beside those of now.
 * @param tried the version that is looked at
 * @param actions what can be done with a version
 */
export function EffortVersionList({
  versions,
  now,
  tried,
  actions,
}: {
  versions: readonly EffortVersion[]
  now: EffortVersion
  tried: EffortVersion | undefined
  actions: (version: EffortVersion) => ReactNode
}) {
  const { t } = useTranslation()
  const words = useChangeWords()
  return (
    <ol className={css.versions}>
      {versions.map((version, i) => (
        <li key={i} className={version === now ? 'now' : version === tried ? 'tried' : undefined}>
          <b>{version.effort.toFixed(1)}</b>{' '}
          <span>
            {version === now ? t('easier.now') : words(version.changes)}
            <small>
              {t('easier.figures', { mm: version.stretchMm, barres: version.barres })}
              {version.ceiling === undefined ? '' : `, ${t('easier.upTo', { bpm: version.ceiling })}`}
              {version === now ? '' : `; ${notesWords(t, version, now.notes)}`}
            </small>
            {version === now ? null : (
              <Group gap={4} mt={2}>
                {actions(version)}
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

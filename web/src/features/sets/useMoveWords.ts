import type { SetMove, SetTune } from '@velvet-porch/core/studio'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useTuningText } from '../../ui/instrument/useTuningText.ts'
import { useNames } from '../../ui/names/useNames.ts'

/** What has to be done between two tunes, in words, and how a tune is set up. */
export function useMoveWords() {
  const { t } = useTranslation()
  const names = useNames()
  const tuningText = useTuningText()
  return useMemo(() => {
    const capoText = (capo: readonly number[]) => {
      const fret = Math.max(0, ...capo)
      const strings = capo.flatMap((f, i) => (f > 0 ? [i + 1] : []))
      if (fret === 0) return t('sets.noCapo')
      return strings.length === capo.length
        ? t('sets.capoAt', { fret })
        : t('sets.partialCapo', { fret, strings: strings.join(', ') })
    }
    const moveText = (move: SetMove): string => {
      if (move.kind === 'instrument') return t(`sets.take.${move.to}`)
      if (move.kind === 'capo')
        return Math.max(...move.to) === 0 ? t('sets.capoOff') : t('sets.capoMove', { to: capoText(move.to) })
      return t(move.to < move.from ? 'sets.down' : 'sets.up', {
        string: move.string,
        from: names.pitch(move.from),
        to: names.pitch(move.to),
      })
    }
    const setupText = ({ kind, tuning, capo }: SetTune): string =>
      [t(`instrument.kinds.${kind}`), tuningText(kind, tuning), capoText(capo)].join(', ')
    return { moveText, setupText }
  }, [t, names, tuningText])
}

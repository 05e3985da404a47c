import { transposeKey } from '@velvet-porch/core/music'
import { tuningId, type InstrumentKind } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { FitOption } from '@velvet-porch/core/arrange'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'

/** What the parts of an option are called. */
export function useFitWords(tune: TuneDoc, instrument: InstrumentKind) {
  const { t } = useTranslation()
  const names = useNames()
  return useMemo(() => {
    const key = tune.measures[0]!.key
    const signed = (n: number) => (n > 0 ? `+${n}` : n < 0 ? `−${-n}` : '0')
    const tuning = ({ choice }: FitOption) => {
      const id = tuningId(instrument, choice.tuning)
      return id ? t(`instrument.tunings.${id}`) : choice.tuning.join(' ')
    }
    /** The key that sounds, with its octave where it is not the written one. */
    const soundsIn = ({ choice }: FitOption) => {
      const sounds = names.key(transposeKey(key, choice.shift))
      const octave = choice.octave as -2 | -1 | 1 | 2 | 0 | undefined
      return octave ? t('fit.soundsIn', { key: sounds, octave: t(`fit.octaveOf.${octave}`) }) : sounds
    }
    return {
      signed,
      tuning,
      sounds: ({ choice }: FitOption) => names.key(transposeKey(key, choice.shift)),
      shapes: ({ choice }: FitOption) => names.key(transposeKey(key, choice.shift - choice.capo)),
      retuned: ({ retuned }: FitOption) =>
        retuned.length === 0
          ? t('fit.noRetuning')
          : retuned.map((r) => t('fit.turn', { string: r.string, by: signed(r.semitones) })).join(', '),
      line: (o: FitOption) =>
        t('fit.line', {
          tuning: tuning(o),
          capo: o.choice.capo,
          sounds: soundsIn(o),
          effort: o.figures.effort.toFixed(1),
        }),
    }
  }, [t, names, tune, instrument])
}

export type FitWords = ReturnType<typeof useFitWords>

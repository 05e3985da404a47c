import { NumberInput } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { change } from '../../state/documents.ts'
import css from './TempoGoal.module.css'

/** The tempo to be reached: the tune's own until a goal, or a partner's tempo, is typed. */
export function TempoGoal({ doc, goal, own }: { doc: ArrangementDoc; goal: number; own: number }) {
  const { t } = useTranslation()
  const save = useDebouncedCallback((bpm: number) => {
    void change('arrangement', doc.id, t('effort.goalCommand', { bpm }), (draft) => {
      if (Math.round(bpm) === Math.round(own)) delete draft.goalBpm
      else draft.goalBpm = bpm
    })
  }, 500)
  return (
    <label className={css['tempo-goal']}>
      {t('effort.goal')}
      <NumberInput
        size="xs"
        w={52}
        hideControls
        min={20}
        max={600}
        step={4}
        clampBehavior="blur"
        aria-label={t('effort.goalLabel')}
        defaultValue={Math.round(goal)}
        key={Math.round(goal)}
        onChange={(v) => typeof v === 'number' && v >= 20 && v <= 600 && save(v)}
      />
    </label>
  )
}

import { Button } from '@mantine/core'
import { betterKeyMessage } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { betterKeyInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'
import { say } from '../../texts/say.ts'
import { useNames } from '../../ui/names/useNames.ts'
import type { BenchArranger } from './useArranger.ts'
import type { ArrangedProps } from './arrangedProps.ts'
import css from './arrange.module.css'

/** Where the tune's key does not let its melody lie as style and level want it: a better one, taken with one click. */
export function BetterKeyLine({
  tune,
  doc,
  arranger,
}: Pick<ArrangedProps, 'tune' | 'doc'> & { arranger: BenchArranger }) {
  const { t } = useTranslation()
  const names = useNames()
  const { answer: better } = useAnswer('betterKey', betterKeyInWorker, [tune, doc] as const)
  if (!better) return null
  const { shift, octave, capo, key } = better
  const label = t(capo === 0 ? 'arrange.command.betterKey' : 'arrange.command.betterKeyCapo', {
    key: names.key(key),
    capo,
  })
  return (
    <div className={css.audit} data-testid="better-key">
      <p>{say(t, betterKeyMessage(better))}</p>
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => void arranger.choose(label, () => ({ shift, octave, capo, locks: [] }))}
      >
        {label}
      </Button>
    </div>
  )
}

import { Button, Group } from '@mantine/core'
import {
  sameContent,
  toTaste,
  type ArrangementDoc,
  type Layer,
  type TasteInForce,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useTasteInForce } from '../../../state/tastes.ts'
import { tasteChangeInWorker } from '../../../workers/previewWorker.ts'
import { useAnswer } from '../../../workers/useAnswer.ts'
import type { BenchArranger } from '../useArranger.ts'
import css from '../arrange.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly arranger: BenchArranger
  /** The layer that is tried on the sheet. */
  readonly tried: Layer | undefined
  readonly onTry: (layer: Layer | undefined) => void
}

/** Whose taste the tab was made to; and what would change were it made to the one in use, seen, heard and taken in one step. */
export function TasteLine({ tune, doc, arranger, tried, onTry }: Props) {
  const { t } = useTranslation()
  const wanted = useTasteInForce(tune.id)
  const made = doc.regions.find((r) => r.taste)?.taste
  const isGiven = doc.regions.every((r) => r.given)
  const differs = !isGiven && !isSame(wanted, made)
  const { answer } = useAnswer(
    'tasteChange',
    tasteChangeInWorker,
    differs && !arranger.atWork && !arranger.stale ? ([tune, doc, wanted] as const) : undefined,
  )
  useEffect(() => () => onTry(undefined), [doc, wanted, onTry])
  if (!differs)
    return made ? (
      <div className={css.audit} data-testid="taste">
        <p>{t('taste.made', { name: made.name })}</p>
      </div>
    ) : null
  if (!answer) return null
  const count = answer.measures.length
  return (
    <div className={css.audit} data-testid="taste">
      {made ? <p>{t('taste.madeOther', { name: made.name })}</p> : null}
      <p>{t(wanted ? 'taste.yourWay' : 'taste.houseWay', { count, list: inRanges(answer.measures) })}</p>
      <Group gap={4}>
        {count > 0 ? (
          <Button
            size="compact-xs"
            variant={tried ? 'filled' : 'default'}
            aria-pressed={tried !== undefined}
            onClick={() => onTry(tried ? undefined : answer.layer)}
          >
            {t('taste.show')}
          </Button>
        ) : null}
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            onTry(undefined)
            void arranger.choose(
              wanted ? t('taste.command', { name: wanted.name }) : t('taste.commandHouse'),
              (now) => ({ regions: toTaste(now.regions, wanted) }),
            )
          }}
        >
          {t('taste.take')}
        </Button>
      </Group>
    </div>
  )
}

/** Numbers in a row as from and to: 1–4, 6. */
function inRanges(numbers: readonly number[]): string {
  const ranges: [number, number][] = []
  for (const n of numbers) {
    const last = ranges.at(-1)
    if (last && n <= last[1] + 1) last[1] = n
    else ranges.push([n, n])
  }
  return ranges.map(([from, to]) => (from === to ? `${from}` : `${from}–${to}`)).join(', ')
}

/** True where two tastes ask for the same, whatever they are called. */
function isSame(a: TasteInForce | undefined, b: TasteInForce | undefined): boolean {
  const asks = (taste: TasteInForce | undefined) => ({
    prices: taste?.prices ?? {},
    shapes: taste?.shapes ?? [],
  })
  return sameContent(asks(a), asks(b))
}

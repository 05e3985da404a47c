import { present } from '@velvet-porch/core/invariant'
import { Button, Group, Text } from '@mantine/core'
import { IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'
import { layerOfMeasures, opening, type Layer } from '@velvet-porch/core/document'
import {
  capoTaper,
  setupWith,
  type FitOption,
  type FitQuestion,
  type Partner,
} from '@velvet-porch/core/arrange'
import { memo, useMemo, useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { player } from '../../score/playback/player.ts'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { Sheet } from '../../score/sheet/Sheet.tsx'
import { NO_LAYERS, type TabLayers } from '../../score/sheet/TabLayer.tsx'
import { sheetModel } from '../../score/sheet/sheetModel.ts'
import { PartnerSheet } from './PartnerSheet.tsx'
import type { FitWords } from './useFitWords.ts'
import css from './FitDetail.module.css'

interface Props {
  readonly question: FitQuestion
  readonly option: FitOption
  readonly layer: Layer | undefined
  readonly partners: readonly Partner[]
  readonly words: FitWords
  /** Numbers of the measures as printed. */
  readonly numbers: readonly number[]
  readonly busy: boolean
  readonly onUse: (option: FitOption, layer: Layer) => Promise<void>
  readonly onCopy: (option: FitOption, layer: Layer) => Promise<void>
}

/** Measures of the preview. */
const PREVIEW = 8

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true }

/** One option: its first measures to see and to hear, what it asks, and the ways to take it. */
export const FitDetail = memo(function FitDetail(props: Props) {
  const { question, option, layer, partners, words, numbers, busy, onUse, onCopy } = props
  const { t } = useTranslation()
  const { tune, setup, regions } = question
  const model = useMemo(() => {
    if (!layer) return undefined
    const cut = opening(tune, PREVIEW)
    return sheetModel(cut, {
      setup: setupWith(setup, option.choice),
      base: layerOfMeasures(layer, new Set(cut.measures.map((m) => m.id))),
      transposed: option.transposed,
      regions: [...regions],
      variants: [],
    })
  }, [tune, setup, regions, option.choice, option.transposed, layer])
  const { toggle, cursor } = usePlaying(model, undefined, undefined)
  const { playing } = useSyncExternalStore(player.subscribe, player.snapshot)
  return (
    <section className={css['fit-detail']} aria-label={t('fit.detail')} data-testid="fit-detail">
      <Group gap={8} wrap="wrap">
        <h2>{words.line(option)}</h2>
        {layer ? (
          <>
            <Button
              size="compact-sm"
              variant="default"
              leftSection={playing ? <IconPlayerStopFilled size={14} /> : <IconPlayerPlayFilled size={14} />}
              onClick={toggle}
            >
              {t(playing ? 'play.stop' : 'fit.hear')}
            </Button>
            <Button size="compact-sm" onClick={() => void onUse(option, layer)}>
              {t('fit.use')}
            </Button>
            <Button size="compact-sm" variant="default" onClick={() => void onCopy(option, layer)}>
              {t('fit.copy')}
            </Button>
          </>
        ) : (
          <Text size="sm" c="dimmed" role="status">
            {busy ? t('fit.workingOut') : ''}
          </Text>
        )}
      </Group>
      <Text size="xs" c="dimmed">
        {layer ? words.retuned(option) : t('fit.estimatedText')}
      </Text>
      <Outside option={option} numbers={numbers} />
      {model ? <Sheet model={model} layers={LAYERS} cursor={cursor} /> : null}
      {layer ? <Taper {...{ question, option, layer, numbers }} /> : null}
      {partners.length > 0 ? <PartnerSheet tune={tune} option={option} partners={partners} /> : null}
    </section>
  )
})

/** The notes that the singer would rather not sing, and where. */
function Outside({ option, numbers }: Pick<Props, 'option' | 'numbers'>) {
  const { t } = useTranslation()
  const names = useNames()
  const { sung } = option
  if (!sung || sung.outside.length === 0) return null
  const by = new Map<number, Set<number>>()
  for (const { midi, measure } of sung.outside)
    by.set(midi, (by.get(midi) ?? new Set<number>()).add(numbers[measure]!))
  const list = [...by]
    .sort((a, b) => a[0] - b[0])
    .map(([midi, measures]) =>
      t('fit.outsideAt', { name: names.pitch(midi), measures: [...measures].join(', ') }),
    )
    .join('; ')
  return (
    <Text size="xs" data-testid="outside">
      {t('fit.outside', { list })}
    </Text>
  )
}

/** The measures that stretch this hand, and the capo that helps, week by week. */
function Taper({
  question,
  option,
  layer,
  numbers,
}: Pick<Props, 'question' | 'option' | 'numbers'> & { layer: Layer }) {
  const { t } = useTranslation()
  const { tune, setup } = question
  const { measures, weeks } = useMemo(
    () => capoTaper(tune, setupWith(setup, option.choice), layer, 'comfort'),
    [tune, setup, option.choice, layer],
  )
  return (
    <details className="reasons" data-testid="taper">
      <summary>{t('fit.taper.title')}</summary>
      {measures.length === 0 ? (
        <p>{t('fit.taper.none')}</p>
      ) : (
        <>
          <ul>
            {measures.map((m) => (
              <li key={m.measure}>
                {m.capo === undefined
                  ? t('fit.taper.never', { measure: numbers[m.measure]!, mm: m.mm })
                  : t('fit.taper.measure', {
                      measure: numbers[m.measure]!,
                      mm: m.mm,
                      capo: m.capo,
                      there: present(m.mmThere),
                    })}
              </li>
            ))}
          </ul>
          <p>
            {t('fit.taper.weeks', {
              list: weeks.map((capo, i) => t('fit.taper.week', { week: i + 1, capo })).join(', '),
            })}
          </p>
        </>
      )}
    </details>
  )
}

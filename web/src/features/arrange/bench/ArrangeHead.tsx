import { Button, Group, Loader, Progress, Text, Tooltip } from '@mantine/core'
import { IconPencil, IconSwitchHorizontal } from '@tabler/icons-react'
import { tuningId } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import { useComesBehind } from '../../../state/arrangedBehind.ts'
import { useNames } from '../../../ui/names/useNames.ts'
import { keysOf, type SheetModel } from '../../../score/sheet/sheetModel.ts'
import { HistoryTools } from '../../../ui/HistoryTools.tsx'
import { FormLine } from '../FormLine.tsx'
import { FindTools } from '../FindTools.tsx'
import { SheetMenu } from '../SheetMenu.tsx'
import { InstrumentTools } from '../InstrumentTools.tsx'
import { MoreTools, SectionChips, SectionPattern, SectionTools, useActiveSection } from '../Sections.tsx'
import { Versions } from '../Versions.tsx'
import { useProgress, type BenchArranger } from '../useArranger.ts'
import { useBench, useBenchPage, useSetBench } from './BenchContext.ts'
import { prepareToLook } from '../../../workers/previewWorker.ts'
import { ExportMenu } from './ExportMenu.tsx'
import css from './ArrangeHead.module.css'

/** Title, the choices that shape the arrangement, and what can be done with it. */
export function ArrangeHead() {
  const { id, signs: model, doc, out, arranger, look, position: at, previous, writing } = useBenchPage()
  const comparing = useBench((s) => s.comparing)
  const beside = useBench((s) => s.beside)
  const onCompare = useSetBench('comparing')
  const onBeside = useSetBench('beside')
  const goTo = useSetBench('position')
  // Written out, the page is another one than the score's.
  const position = out ? undefined : at
  const onPosition = out ? undefined : goTo
  const { t } = useTranslation()
  const { settings } = arranger
  const comesBehind = useComesBehind(id)
  const setupText = useSetupText(model)
  const section = useActiveSection(model.tune, settings, position)
  return (
    <>
      <div className="bench-title">
        <h1>{model.tune.title}</h1>
        <Group gap={4} ml="auto" wrap="nowrap">
          <Tooltip label={`${t('write.openHint')} (W)`}>
            <Button
              size="compact-sm"
              variant={writing?.on ? 'filled' : 'light'}
              leftSection={<IconPencil size={15} />}
              aria-pressed={writing?.on ?? false}
              disabled={!writing}
              onClick={writing?.toggle}
            >
              {t('write.open')}
            </Button>
          </Tooltip>
          <SheetMenu />
          {onPosition ? (
            <FindTools tune={model.tune} doc={doc} numbers={model.numbers} onPosition={onPosition} />
          ) : null}
          <HistoryTools tuneId={id} held={[t('versions.name')]}>
            <Button
              mt={10}
              mb={14}
              size="compact-sm"
              variant={comparing ? 'filled' : 'default'}
              aria-pressed={comparing}
              disabled={previous === undefined}
              leftSection={<IconSwitchHorizontal size={16} />}
              onClick={() => onCompare(!comparing)}
            >
              {previous === undefined
                ? t('arrange.compare.none')
                : t('arrange.compare.with', { label: previous })}
            </Button>
            <Versions tuneId={id} mayKeep={doc !== null} beside={beside} onBeside={onBeside} onLook={look} />
          </HistoryTools>
          <ExportMenu />
        </Group>
      </div>
      {settings ? (
        <>
          <div className={css['bench-tools']} onPointerEnter={prepareToLook} onFocus={prepareToLook}>
            <InstrumentTools tune={model.tune} settings={settings} arranger={arranger} />
            <SectionTools arranger={arranger} settings={settings} section={section} />
            <MoreTools
              tune={model.tune}
              numbers={model.numbers}
              arranger={arranger}
              settings={settings}
              position={position}
              section={section}
            />
            <Working arranger={arranger} behind={comesBehind} />
          </div>
          <div className={`${css['bench-tools']} second`}>
            <SectionChips
              arranger={arranger}
              tune={model.tune}
              numbers={model.numbers}
              settings={settings}
              section={section}
            />
            <SectionPattern
              tune={model.tune}
              arranger={arranger}
              settings={settings}
              section={section}
              setup={model.setup}
              harmony={model.harmony}
            />
          </div>
        </>
      ) : null}
      <div className={css['bench-setup']}>
        <span data-testid="setup">{setupText}</span>
        <FormLine tune={model.tune} numbers={model.numbers} onPosition={onPosition} />
      </div>
    </>
  )
}

/** Shows that work goes on, and stops it. */
function Working({ arranger, behind }: { arranger: BenchArranger; behind: boolean }) {
  const { t } = useTranslation()
  const progress = useProgress(arranger)
  if (progress === undefined)
    return behind ? (
      <Group gap={6} role="status">
        <Text size="xs">{t('arrange.working')}</Text>
        <Loader size={14} color="plum" />
      </Group>
    ) : null
  return (
    <Group gap={6} role="status">
      <Text size="xs">{t('arrange.working')}</Text>
      <Progress w={90} value={progress * 100} aria-label={t('arrange.working')} />
      <Button size="compact-xs" variant="default" onClick={arranger.cancel}>
        {t('arrange.cancel')}
      </Button>
    </Group>
  )
}

/** Instrument, key, capo, tuning, octave and hand in one line. */
function useSetupText(model: SheetModel): string {
  const { t } = useTranslation()
  const names = useNames()
  if (!model.setup) return ''
  const keys = keysOf(model, names)
  const capo = model.setup.capo[0]!
  const shift = model.setup.shift ?? 0
  const octaves = (model.transposed - shift) / 12
  const n = Math.abs(octaves)
  const shifted =
    octaves === 0
      ? []
      : [
          n === 1
            ? t(octaves < 0 ? 'arrange.octave_down' : 'arrange.octave_up')
            : t(octaves < 0 ? 'arrange.octaves_down' : 'arrange.octaves_up', { n }),
        ]
  const parts =
    capo > 0
      ? [
          t('arrange.shapes', { key: keys.shape }),
          t('arrange.capoAt', { capo }),
          t('arrange.sounds', { key: keys.sounding }),
        ]
      : [keys.sounding]
  const hand = model.setup.player.name ? [model.setup.player.name] : []
  const { kind } = model.setup.instrument
  const id = tuningId(kind, model.setup.tuning)
  const tuning = id && id !== 'standard' ? [t(`instrument.tunings.${id}`)] : []
  const instrument = kind === 'guitar' ? [] : [t(`instrument.kinds.${kind}`)]
  const moved =
    shift === 0 ? [] : [t(shift < 0 ? 'arrange.lower' : 'arrange.higher', { count: Math.abs(shift) })]
  return [...instrument, ...parts, ...tuning, ...moved, ...shifted, ...hand].join(' · ')
}

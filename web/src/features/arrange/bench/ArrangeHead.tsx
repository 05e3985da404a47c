import { ActionIcon, Button, Group, Progress, Text, Tooltip, UnstyledButton } from '@mantine/core'
import { IconFileText, IconPencil, IconPrinter, IconSwitchHorizontal } from '@tabler/icons-react'
import { tuningId } from '@velvet-porch/core/instrument'
import { textTab } from '@velvet-porch/core/output'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { useNames } from '../../../ui/names/useNames.ts'
import { keysOf, type SheetModel } from '../../../score/sheet/sheetModel.ts'
import { HistoryTools } from '../../../ui/HistoryTools.tsx'
import { setPrefs, usePrefs } from '../../../state/prefs.ts'
import { FormLine } from '../FormLine.tsx'
import { FindTools } from '../FindTools.tsx'
import { SheetMenu } from '../SheetMenu.tsx'
import { InstrumentTools } from '../InstrumentTools.tsx'
import { saveAs } from '../../../ui/saveAs.ts'
import { INSTRUMENTS } from '@velvet-porch/core/instrument'
import { PartsMenu } from '../PartsMenu.tsx'
import { SectionChips, SectionCuts, SectionPattern, SectionTools, useActiveSection } from '../Sections.tsx'
import { VersionsMenu } from '../VersionsMenu.tsx'
import { useProgress, type BenchArranger } from '../useArranger.ts'
import { useBench, useBenchPage, useSetBench } from './BenchContext.ts'
import css from './ArrangeHead.module.css'

const LAYERS = ['fingers', 'picking', 'counts', 'degrees'] as const
const LANE_SIGNS = { fingers: '1 2 3', picking: 'p i m', counts: '1 & 2', degrees: '1 ♭3 5' }

/** Title, the choices that shape the arrangement, and what can be done with it. */
export function ArrangeHead() {
  const { id, signs: model, doc, out, arranger, position: at, previous, writing } = useBenchPage()
  const comparing = useBench((s) => s.comparing)
  const beside = useBench((s) => s.beside)
  const onCompare = useSetBench('comparing')
  const onBeside = useSetBench('beside')
  const goTo = useSetBench('position')
  // Written out, the page is another one than the score's.
  const position = out ? undefined : at
  const onPosition = out ? undefined : goTo
  const { t } = useTranslation()
  const go = useNavigate()
  const { settings } = arranger
  const { sheet } = usePrefs()
  const setupText = useSetupText(model)
  const section = useActiveSection(model.tune, settings, position)
  const download = () => {
    if (!model.layer || !model.setup) return
    const text = textTab({
      tune: model.tune,
      timeline: model.timeline,
      setup: model.setup,
      layer: model.layer,
      harmony: model.harmony,
    })
    saveAs(`${model.tune.title}.txt`, text, 'text/plain')
  }
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
          {LAYERS.map((layer) => (
            <Layer
              key={layer}
              label={t(`arrange.${layer}`)}
              sign={LANE_SIGNS[layer]}
              on={sheet[layer]}
              onToggle={() => setPrefs({ sheet: { ...sheet, [layer]: !sheet[layer] } })}
            />
          ))}
          <SheetMenu />
          {onPosition ? (
            <FindTools tune={model.tune} doc={doc} numbers={model.numbers} onPosition={onPosition} />
          ) : null}
          <HistoryTools tuneId={id} />
          <Step
            label={
              previous === undefined
                ? t('arrange.compare.none')
                : t('arrange.compare.with', { label: previous })
            }
            disabled={previous === undefined}
            pressed={comparing}
            onClick={() => onCompare(!comparing)}
          >
            <IconSwitchHorizontal size={18} />
          </Step>
          <VersionsMenu tuneId={id} mayKeep={doc !== null} beside={beside} onBeside={onBeside} />
          <Step label={t('arrange.text')} disabled={!doc} onClick={download}>
            <IconFileText size={18} />
          </Step>
          <Step label={t('arrange.print')} disabled={!doc} onClick={() => void go(`/tunes/${id}/print`)}>
            <IconPrinter size={18} />
          </Step>
        </Group>
      </div>
      <div className={css['bench-setup']}>
        <span data-testid="setup">{setupText}</span>
        <FormLine tune={model.tune} numbers={model.numbers} onPosition={onPosition} />
      </div>
      {settings ? (
        <>
          <div className={css['bench-tools']}>
            <InstrumentTools tune={model.tune} settings={settings} arranger={arranger} />
            <SectionTools tune={model.tune} arranger={arranger} settings={settings} section={section} />
          </div>
          <div className={`${css['bench-tools']} second`}>
            <SectionChips
              arranger={arranger}
              tune={model.tune}
              numbers={model.numbers}
              settings={settings}
              section={section}
            />
            <SectionCuts
              tune={model.tune}
              numbers={model.numbers}
              arranger={arranger}
              settings={settings}
              position={position}
              section={section}
            />
            <PartsMenu
              tune={model.tune}
              numbers={model.numbers}
              arranger={arranger}
              position={position}
              instrument={INSTRUMENTS[settings.instrument].instrument}
            />
            <SectionPattern
              tune={model.tune}
              arranger={arranger}
              settings={settings}
              section={section}
              setup={model.setup}
              harmony={model.harmony}
            />
            <Working arranger={arranger} />
          </div>
        </>
      ) : null}
    </>
  )
}

/** Shows that work goes on, and stops it. */
function Working({ arranger }: { arranger: BenchArranger }) {
  const { t } = useTranslation()
  const progress = useProgress(arranger)
  if (progress === undefined) return null
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

/** Switches a layer of the sheet, shown by its own signs. */
function Layer({
  label,
  sign,
  on,
  onToggle,
}: {
  label: string
  sign: string
  on: boolean
  onToggle: () => void
}) {
  return (
    <Tooltip label={label}>
      <UnstyledButton
        role="checkbox"
        aria-checked={on}
        aria-label={label}
        className={on ? `${css['layer-switch']} on` : css['layer-switch']}
        onClick={onToggle}
      >
        {sign}
      </UnstyledButton>
    </Tooltip>
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

function Step({
  label,
  disabled,
  pressed,
  onClick,
  children,
}: {
  label: string
  disabled: boolean
  pressed?: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <Tooltip label={label}>
      <ActionIcon
        variant={pressed ? 'filled' : 'subtle'}
        color="plum"
        aria-label={label}
        aria-pressed={pressed}
        disabled={disabled}
        onClick={onClick}
      >
        {children}
      </ActionIcon>
    </Tooltip>
  )
}

import {
  ActionIcon,
  Button,
  Checkbox,
  Group,
  Progress,
  SegmentedControl,
  Select,
  Text,
  Tooltip,
} from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp, IconFileText, IconPrinter } from '@tabler/icons-react'
import {
  LEVELS,
  namedTunings,
  STYLES,
  textTab,
  tuningId,
  type ArrangementDoc,
  type Level,
  type Style,
} from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { useNames } from '../names/useNames.ts'
import { keysOf, type SheetModel } from '../sheet/sheetModel.ts'
import type { TabLayers } from '../sheet/TabLayer.tsx'
import { step } from '../store/documents.ts'
import { arrangementId } from '../store/shelf.ts'
import { useHistory } from '../store/useTune.ts'
import { saveAs } from './saveAs.ts'
import { FIRST_SETTINGS, settingsOf, type Arranger, type Settings } from './useArranger.ts'

const TUNINGS = namedTunings('guitar')

interface Props {
  readonly id: string
  readonly model: SheetModel
  readonly doc: ArrangementDoc | null
  readonly arranger: Arranger
  readonly layers: TabLayers
  readonly onLayers: (layers: TabLayers) => void
}

/** Title, the choices that shape the arrangement, and what can be done with it. */
export function ArrangeHead({ id, model, doc, arranger, layers, onLayers }: Props) {
  const { t } = useTranslation()
  const go = useNavigate()
  const now = arranger.wanted ?? (doc ? settingsOf(doc) : FIRST_SETTINGS)
  const history = useHistory(arrangementId(id))
  const busy = arranger.progress !== undefined
  const set = (next: Partial<Settings>, label: string) => void arranger.arrange({ ...now, ...next }, label)
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
        <span className="setup" data-testid="setup">
          <SetupText model={model} />
        </span>
        <Group gap={4} ml="auto" wrap="nowrap">
          <Step
            label={history.undo ? t('arrange.undo', { label: history.undo }) : t('arrange.nothingToUndo')}
            disabled={!history.undo}
            onClick={() => void step(arrangementId(id), 'undo')}
          >
            <IconArrowBackUp size={18} />
          </Step>
          <Step
            label={history.redo ? t('arrange.redo', { label: history.redo }) : t('arrange.nothingToRedo')}
            disabled={!history.redo}
            onClick={() => void step(arrangementId(id), 'redo')}
          >
            <IconArrowForwardUp size={18} />
          </Step>
          <Step label={t('arrange.text')} disabled={!doc} onClick={download}>
            <IconFileText size={18} />
          </Step>
          <Step label={t('arrange.print')} disabled={!doc} onClick={() => void go(`/tunes/${id}/print`)}>
            <IconPrinter size={18} />
          </Step>
        </Group>
      </div>
      <div className="bench-tools">
        <SegmentedControl
          size="xs"
          aria-label={t('arrange.style')}
          value={now.style}
          onChange={(v) =>
            set({ style: v as Style }, t('arrange.command.style', { to: t(`arrange.styles.${v as Style}`) }))
          }
          data={STYLES.map((s) => ({ value: s, label: t(`arrange.styles.${s}`) }))}
        />
        <SegmentedControl
          size="xs"
          aria-label={t('arrange.level')}
          value={String(now.level)}
          onChange={(v) => set({ level: Number(v) as Level }, t('arrange.command.level', { to: v }))}
          data={LEVELS.map((l) => ({
            value: String(l),
            label: <span title={t(`arrange.levels.${l}`)}>{t('arrange.levelName', { level: l })}</span>,
          }))}
        />
        <Select
          size="xs"
          w={112}
          aria-label={t('instrument.tuning')}
          value={tuningId('guitar', now.tuning) ?? null}
          allowDeselect={false}
          onChange={(v) => {
            const named = TUNINGS.find((n) => n.id === v)
            if (named)
              set(
                { tuning: named.tuning },
                t('arrange.command.tuning', { to: t(`instrument.tunings.${named.id}`) }),
              )
          }}
          data={TUNINGS.map((n) => ({ value: n.id, label: t(`instrument.tunings.${n.id}`) }))}
        />
        <Select
          size="xs"
          w={104}
          aria-label={t('arrange.capo')}
          value={String(now.capo)}
          allowDeselect={false}
          onChange={(v) => v !== null && set({ capo: Number(v) }, t('arrange.command.capo', { to: v }))}
          data={Array.from({ length: 10 }, (_, c) => ({
            value: String(c),
            label:
              c === 0 ? `${t('arrange.capo')}: ${t('arrange.noCapo')}` : t('arrange.capoAt', { capo: c }),
          }))}
        />
        <Checkbox
          size="xs"
          label={t('arrange.fingers')}
          checked={layers.fingers}
          onChange={(e) => onLayers({ ...layers, fingers: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          label={t('arrange.picking')}
          checked={layers.picking}
          onChange={(e) => onLayers({ ...layers, picking: e.currentTarget.checked })}
        />
        {busy ? (
          <Group gap={6} role="status">
            <Text size="xs">{t('arrange.working')}</Text>
            <Progress w={90} value={(arranger.progress ?? 0) * 100} aria-label={t('arrange.working')} />
            <Button size="compact-xs" variant="default" onClick={arranger.cancel}>
              {t('arrange.cancel')}
            </Button>
          </Group>
        ) : null}
      </div>
    </>
  )
}

function SetupText({ model }: { model: SheetModel }) {
  const { t } = useTranslation()
  const names = useNames()
  if (!model.setup) return null
  const keys = keysOf(model, names)
  const capo = model.setup.capo[0]!
  const octaves = model.transposed / 12
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
  const id = tuningId('guitar', model.setup.tuning)
  const tuning = id && id !== 'standard' ? [t(`instrument.tunings.${id}`)] : []
  return <>{[...parts, ...tuning, ...shifted, ...hand].join(' · ')}</>
}

function Step({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string
  disabled: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <Tooltip label={label}>
      <ActionIcon variant="subtle" color="plum" aria-label={label} disabled={disabled} onClick={onClick}>
        {children}
      </ActionIcon>
    </Tooltip>
  )
}

import { Select } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import { highestCapo, INSTRUMENTS, type InstrumentKind } from '@velvet-porch/core/instrument'
import { styleOn } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { CapoTool } from './CapoTool.tsx'
import type { Settings } from './settings.ts'
import { TuningTool } from './TuningTool.tsx'
import type { BenchArranger } from './useArranger.ts'

/** Instruments that the arranger writes for. */
const KINDS: readonly InstrumentKind[] = ['guitar', 'mandolin']

/** What is played: instrument, tuning, capo. */
export function InstrumentTools({
  tune,
  settings,
  arranger,
}: {
  tune: TuneDoc
  settings: Settings
  arranger: BenchArranger
}) {
  const { t } = useTranslation()
  const { instrument } = settings
  const set = (next: Partial<Settings>, label: string) => void arranger.choose(label, () => next)
  return (
    <>
      <Select
        size="xs"
        w={100}
        aria-label={t('instrument.kind')}
        value={instrument}
        allowDeselect={false}
        onChange={(v) => {
          if (v === null) return
          const kind = v
          // A style that it cannot play gives way to the nearest; the command says so.
          const { instrument: played } = INSTRUMENTS[kind]
          const regions = settings.regions.map((r) => {
            const style = styleOn(r.style, played)
            if (style === r.style) return r
            const { pattern: _, ...rest } = r
            return { ...rest, style }
          })
          const gone = settings.regions.find((r, i) => regions[i]!.style !== r.style)
          const now = gone && regions[settings.regions.indexOf(gone)]!.style
          const to = t(`instrument.kinds.${kind}`)
          set(
            {
              regions,
              instrument: kind,
              tuning: INSTRUMENTS[kind].usual,
              capo: Math.min(settings.capo, highestCapo(kind)),
              locks: [],
            },
            gone && now
              ? t('arrange.command.instrumentStyle', {
                  to,
                  from: t(`arrange.styles.${gone.style}`),
                  style: t(`arrange.styles.${now}`),
                })
              : t('arrange.command.instrument', { to }),
          )
        }}
        data={KINDS.map((k) => ({ value: k, label: t(`instrument.kinds.${k}`) }))}
      />
      <TuningTool settings={settings} arranger={arranger} />
      <CapoTool tune={tune} settings={settings} arranger={arranger} />
    </>
  )
}

import { Select } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import { highestCapo, INSTRUMENTS, type InstrumentKind } from '@velvet-porch/core/instrument'
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
          set(
            {
              instrument: kind,
              tuning: INSTRUMENTS[kind].usual,
              capo: Math.min(settings.capo, highestCapo(kind)),
              locks: [],
            },
            t('arrange.command.instrument', { to: t(`instrument.kinds.${kind}`) }),
          )
        }}
        data={KINDS.map((k) => ({ value: k, label: t(`instrument.kinds.${k}`) }))}
      />
      <TuningTool settings={settings} arranger={arranger} />
      <CapoTool tune={tune} settings={settings} arranger={arranger} />
    </>
  )
}

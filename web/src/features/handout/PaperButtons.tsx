import { Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconFileTypePdf, IconPrinter } from '@tabler/icons-react'
import type { HandoutDoc } from '@velvet-porch/core/output/handout'
import { useState, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { guideTook } from '../../state/guide.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { savePdf } from './pdf.ts'

interface Props {
  readonly title: string
  readonly handout: HandoutDoc
  /** The pages as they are laid out now. */
  readonly pages: RefObject<readonly string[]>
  readonly disabled?: boolean
}

/** Prints pages, or saves them as PDF; where that cannot be, says what to do instead. */
export function PaperButtons({ title, handout, pages, disabled = false }: Props) {
  const { t } = useTranslation()
  const [busy, setBusy] = useState(false)
  const toPdf = async () => {
    setBusy(true)
    try {
      await savePdf(title, handout, pages.current)
      guideTook('print')
    } catch (e) {
      notifications.show({ color: 'lamp', title: t('handout.noPdf'), message: errorWords(t, e) })
    } finally {
      setBusy(false)
    }
  }
  return (
    <>
      <Button
        size="compact-sm"
        variant="default"
        disabled={disabled}
        leftSection={<IconPrinter size={15} />}
        data-guide="print"
        onClick={() => {
          guideTook('print')
          window.print()
        }}
      >
        {t('handout.print')}
      </Button>
      <Button
        size="compact-sm"
        disabled={disabled}
        loading={busy}
        data-guide="print"
        leftSection={<IconFileTypePdf size={15} />}
        onClick={() => void toPdf()}
      >
        {t('handout.pdf')}
      </Button>
    </>
  )
}

import { Button, Text } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconFileTypePdf, IconPrinter } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import type { HandoutDoc } from '@velvet-porch/core/output/handout'
import { useState, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { guideTook } from '../../state/guide.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { canSavePdf, savePdf } from './pdf.ts'

interface Props {
  readonly title: string
  readonly handout: HandoutDoc
  /** The pages as they are laid out now. */
  readonly pages: RefObject<readonly string[]>
  readonly disabled?: boolean
}

/** Milliseconds between two looks whether a server that did not answer does again. */
const LOOK_EVERY_MS = 10_000

/** Prints pages, or saves them as PDF; where no server makes one, that is said before anybody asks. */
export function PaperButtons({ title, handout, pages, disabled = false }: Props) {
  const { t } = useTranslation()
  const [busy, setBusy] = useState(false)
  const { data: byServer = true } = useQuery({
    queryKey: ['pdf'],
    queryFn: canSavePdf,
    networkMode: 'always',
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data === false ? LOOK_EVERY_MS : false),
  })
  const print = () => {
    guideTook('print')
    window.print()
  }
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
        onClick={print}
      >
        {t('handout.print')}
      </Button>
      <Button
        size="compact-sm"
        disabled={disabled}
        loading={busy}
        data-guide="print"
        leftSection={<IconFileTypePdf size={15} />}
        onClick={() => (byServer ? void toPdf() : print())}
      >
        {t(byServer ? 'handout.pdf' : 'handout.pdfByPrint')}
      </Button>
      {byServer ? null : (
        <Text size="xs" c="dimmed" role="status" maw={230}>
          {t('handout.pdfByPrintHint')}
        </Text>
      )}
    </>
  )
}

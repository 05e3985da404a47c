import { Button, Menu } from '@mantine/core'
import { IconDownload, IconFileText, IconNotebook, IconPiano, IconPrinter } from '@tabler/icons-react'
import { textTab } from '@velvet-porch/core/output'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { holds } from '../../../ui/holds.ts'
import { download, saveAs } from '../../../ui/saveAs.ts'
import { useBenchPage } from './BenchContext.ts'

/** What leaves the bench: paper, text, files. */
export function ExportMenu() {
  const { id, signs: model, doc } = useBenchPage()
  const { t } = useTranslation()
  const go = useNavigate()
  const saveText = () => {
    if (!model.layer || !model.setup) return
    const { tune, timeline, setup, layer, harmony } = model
    saveAs(`${tune.title}.txt`, textTab({ tune, timeline, setup, layer, harmony }), 'text/plain')
  }
  const midi = async () => {
    if (!doc) return
    const { writeMidi } = await import('@velvet-porch/core/output/midi')
    const { tune } = model
    // A view into memory of its own: the browser takes it as it is.
    const bytes = new Uint8Array(writeMidi({ tune, arrangement: doc }))
    download(`${tune.title}.mid`, new Blob([bytes], { type: 'audio/midi' }))
  }
  return (
    <Menu position="bottom-end" shadow="md">
      <Menu.Target>
        <Button
          size="compact-sm"
          variant="subtle"
          color="plum"
          leftSection={<IconDownload size={16} />}
          {...holds([t('arrange.print'), t('arrange.text'), t('arrange.midi'), t('arrange.export.files')])}
        >
          {t('arrange.export.title')}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          leftSection={<IconPrinter size={16} />}
          disabled={!doc}
          onClick={() => void go(`/tunes/${id}/print`)}
        >
          {t('arrange.print')}
        </Menu.Item>
        <Menu.Item leftSection={<IconFileText size={16} />} disabled={!doc} onClick={saveText}>
          {t('arrange.text')}
        </Menu.Item>
        <Menu.Item leftSection={<IconPiano size={16} />} disabled={!doc} onClick={() => void midi()}>
          {t('arrange.midi')}
        </Menu.Item>
        <Menu.Item leftSection={<IconNotebook size={16} />} onClick={() => void go(`/tunes/${id}/handout`)}>
          {t('arrange.export.files')}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}

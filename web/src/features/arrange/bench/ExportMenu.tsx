import { Button, Menu } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import {
  IconDeviceFloppy,
  IconDownload,
  IconFileMusic,
  IconFileText,
  IconLetterA,
  IconNotebook,
  IconPhoto,
  IconPiano,
  IconPrinter,
  IconQuote,
  IconVectorSpline,
} from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { say } from '../../../texts/say.ts'
import { holds } from '../../../ui/holds.ts'
import { errorWords } from '../../../workers/errorWords.ts'
import { useBenchPage } from './BenchContext.ts'
import { EXPORTS, exportScore, type ExportId } from './exports.ts'

const ICONS: Readonly<Record<ExportId, typeof IconDownload>> = {
  text: IconFileText,
  musicxml: IconFileMusic,
  midi: IconPiano,
  abc: IconLetterA,
  'abc-places': IconLetterA,
  chordpro: IconQuote,
  svg: IconVectorSpline,
  png: IconPhoto,
  'tune-file': IconDeviceFloppy,
}

/** What leaves the bench: paper, text, files; and what of it a file does not keep. */
export function ExportMenu() {
  const { id, signs: model, doc } = useBenchPage()
  const { t } = useTranslation()
  const go = useNavigate()
  const { tune } = model
  const isSong = (tune.song?.lines.length ?? 0) > 0
  const offered = EXPORTS.filter((e) => e !== 'chordpro' || isSong)
  const save = async (format: ExportId) => {
    if (!doc) return
    const name = t(`arrange.export.of.${format}`)
    try {
      const left = await exportScore(format, { tune, arrangement: doc })
      notifications.show(
        left === undefined
          ? { message: t('arrange.export.nothing', { name }), color: 'red' }
          : {
              title: t('arrange.export.saved', { name }),
              message:
                left.length === 0
                  ? t('arrange.export.whole')
                  : t('arrange.export.left', {
                      list: left.map((f) => say(t, f)).join('; '),
                    }),
            },
      )
    } catch (error) {
      notifications.show({ message: errorWords(t, error), color: 'red' })
    }
  }
  return (
    <Menu position="bottom-end" shadow="md">
      <Menu.Target>
        <Button
          size="compact-sm"
          variant="subtle"
          color="plum"
          leftSection={<IconDownload size={16} />}
          {...holds([
            t('arrange.print'),
            ...offered.map((e) => t(`arrange.export.of.${e}`)),
            t('arrange.export.files'),
          ])}
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
        <Menu.Item leftSection={<IconNotebook size={16} />} onClick={() => void go(`/tunes/${id}/handout`)}>
          {t('arrange.export.files')}
        </Menu.Item>
        <Menu.Divider />
        {offered.map((format) => {
          const Icon = ICONS[format]
          return (
            <Menu.Item
              key={format}
              leftSection={<Icon size={16} />}
              disabled={!doc}
              onClick={() => void save(format)}
            >
              {t(`arrange.export.of.${format}`)}
            </Menu.Item>
          )
        })}
      </Menu.Dropdown>
    </Menu>
  )
}
